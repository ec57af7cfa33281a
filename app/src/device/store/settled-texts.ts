import { useEffect, useState } from 'react';
import { useKeptCopies } from './kept-copies';

/** While texts come in, one after the other, it is not worth looking again after each. */
const SETTLED_MS = 1500;

/** How many texts are on this device, told when no more have come for a while. */
export function useSettledTexts(): number {
  const count = useKeptCopies()?.size ?? 0;
  const [settled, setSettled] = useState(count);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(count), SETTLED_MS);
    return () => clearTimeout(timer);
  }, [count]);
  return settled;
}
