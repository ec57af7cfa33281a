import { useState } from 'react';
import { inWords } from '@/features/elsewhere/in-words';

/** One thing that is asked of the server: whether it is under way, and what came of it when it went wrong. */
export function useTrying() {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  return {
    busy,
    problem,
    /** Says what is wrong before anything is asked. */
    refuse: setProblem,
    /** @returns whether it went well */
    async tryTo(work: () => Promise<unknown>): Promise<boolean> {
      setBusy(true);
      setProblem(null);
      try {
        await work();
        return true;
      } catch (error) {
        setProblem(inWords(error));
        return false;
      } finally {
        setBusy(false);
      }
    },
  };
}
