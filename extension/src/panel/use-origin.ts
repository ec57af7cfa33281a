import { useEffect, useState } from 'react';
import { storage } from '../background/storage';

/** Where the library stands that the extension is paired with. */
export function useOrigin(): string | null {
  const [origin, setOrigin] = useState<string | null>(null);
  useEffect(() => void storage.pairing().then((pairing) => setOrigin(pairing?.origin ?? null)), []);
  return origin;
}
