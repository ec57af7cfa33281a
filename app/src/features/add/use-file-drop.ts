import { useEffect } from 'react';
import { useAddSheet } from './add-store';

/** Files that are dropped on the window are put before the reader to be saved; the browser would open them instead. */
export function useFileDrop(): void {
  useEffect(() => {
    const isOurs = (event: DragEvent) =>
      event.dataTransfer?.types.includes('Files') === true &&
      !(event.target instanceof Element && event.target.closest('input[type=file]'));
    const over = (event: DragEvent) => {
      if (isOurs(event)) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      if (!isOurs(event)) return;
      event.preventDefault();
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length > 0) useAddSheet.getState().openWith(files);
    };
    addEventListener('dragover', over);
    addEventListener('drop', drop);
    return () => {
      removeEventListener('dragover', over);
      removeEventListener('drop', drop);
    };
  }, []);
}
