import type { ArchiveLook } from '@dorvel/core/model';
import { useEffect, useRef, useState } from 'react';
import { type ArchiveProgress, bringInArchive, sendArchive } from '@/device/sync/archive';
import { inWords } from '@/features/elsewhere/in-words';

/** Where bringing an archive in stands. */
type BringingIn =
  | { at: 'nothing'; problem: string | null }
  | { at: 'under-way'; words: string; fraction: number }
  | { at: 'looked'; look: ArchiveLook }
  | { at: 'in'; look: ArchiveLook };

const NOTHING: BringingIn = { at: 'nothing', problem: null };

/** Sends an archive, tells what it has, and brings it in; each can be stopped. */
export function useBringIn() {
  const [state, setState] = useState<BringingIn>(NOTHING);
  const going = useRef<AbortController | null>(null);
  useEffect(() => () => going.current?.abort(), []);

  const goThrough = async (
    words: Readonly<Record<ArchiveProgress['stage'], string>>,
    work: (with_: { onProgress(progress: ArchiveProgress): void; signal: AbortSignal }) => Promise<ArchiveLook>,
    then: (look: ArchiveLook) => BringingIn,
    stopped: string,
  ) => {
    const controller = (going.current = new AbortController());
    const onProgress = ({ stage, fraction }: ArchiveProgress) =>
      setState({ at: 'under-way', words: words[stage], fraction });
    onProgress({ stage: 'sending', fraction: 0 });
    try {
      setState(then(await work({ onProgress, signal: controller.signal })));
    } catch (error) {
      setState({ at: 'nothing', problem: controller.signal.aborted ? stopped : inWords(error) });
    }
  };

  return {
    state,
    send: (file: File) =>
      goThrough(
        { sending: 'Sending it to your server…', 'going-through': 'Looking through it…' },
        (with_) => sendArchive(file, with_),
        (look) => ({ at: 'looked', look }),
        'Stopped. Nothing was brought in.',
      ),
    bringIn: () =>
      goThrough(
        { sending: 'Bringing it in…', 'going-through': 'Bringing it in…' },
        bringInArchive,
        (look) => ({ at: 'in', look }),
        'Stopped. What came in until then is in your library; the same archive goes on where it was.',
      ),
    leave: () => setState(NOTHING),
    stop: () => going.current?.abort(),
  };
}
