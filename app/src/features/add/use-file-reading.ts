import { useCallback, useEffect, useRef, useState } from 'react';
import { type SaveList, saveListOfFiles } from './files';

type Reading = (signal: AbortSignal) => Promise<SaveList>;

/** Files that are read, and what is in them; what is still being read when something else is asked for is wanted by nobody. */
export function useFileReading() {
  const [list, setList] = useState<SaveList | null>(null);
  const [name, setName] = useState<string | null>(null);
  const [isChanging, setIsChanging] = useState(false);
  const ending = useRef<AbortController | null>(null);
  const end = useCallback(() => {
    ending.current?.abort();
    setName(null);
    setIsChanging(false);
  }, []);
  const read = useCallback(
    async (readList: Reading) => {
      const controller = new AbortController();
      ending.current = controller;
      const found = await readList(controller.signal);
      if (controller.signal.aborted) return;
      end();
      setList(found);
    },
    [end],
  );
  const files = useCallback(
    (chosen: readonly File[]) => {
      const [first] = chosen;
      if (!first) return;
      end();
      setName(chosen.length === 1 ? first.name : `${chosen.length} files`);
      void read((signal) => saveListOfFiles(chosen, signal));
    },
    [end, read],
  );
  useEffect(() => () => ending.current?.abort(), []);
  return {
    /** What was read; null before. */
    list,
    /** What is being read for the first time; null when nothing is. */
    name,
    /** The list is being read in another way: it is not what would be saved. */
    isChanging,
    end,
    files,
    forget: () => setList(null),
    again(readList: Reading) {
      end();
      setIsChanging(true);
      void read(readList);
    },
  };
}
