import { useEffect } from 'react';
import { useAddSheet } from './add-store';
import { isPicture } from './pictures';

/**
 * Files that are dropped on the window, and pictures that are pasted, are put before the reader to be saved; the browser would open
 * those instead, and do nothing with these.
 */
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
    const paste = ({ clipboardData }: ClipboardEvent) => {
      const files = [...(clipboardData?.files ?? [])].filter(isPicture);
      // What was copied as text is pasted as text, whatever else the clipboard has of it.
      if (files.length > 0 && clipboardData?.types.includes('text/plain') === false)
        useAddSheet.getState().openWith(files);
    };
    addEventListener('paste', paste);
    addEventListener('dragover', over);
    addEventListener('drop', drop);
    return () => {
      removeEventListener('paste', paste);
      removeEventListener('dragover', over);
      removeEventListener('drop', drop);
    };
  }, []);
}
