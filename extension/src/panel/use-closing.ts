import { useEffect, useState } from 'react';
import { storage } from '../background/storage';

/**
 * Closes the panel by itself some seconds after the save, unless it is touched: then it stays (WCAG 2.2, 2.2.1: the
 * reader can turn the time limit off, here and for good in the settings).
 *
 * @returns seconds left; null when it stays
 */
export function useClosing(isSaved: boolean): number | null {
  const [left, setLeft] = useState<number | null>(null);
  useEffect(() => {
    if (!isSaved) return undefined;
    let timer: ReturnType<typeof setInterval> | undefined;
    const stay = () => {
      clearInterval(timer);
      setLeft(null);
    };
    void storage.settings().then(({ staysSeconds }) => {
      if (staysSeconds === null) return;
      const end = Date.now() + staysSeconds * 1000;
      setLeft(staysSeconds);
      timer = setInterval(() => {
        const seconds = Math.ceil((end - Date.now()) / 1000);
        if (seconds > 0) setLeft(seconds);
        else window.close();
      }, 250);
      for (const touch of ['pointermove', 'pointerdown', 'keydown', 'wheel'])
        addEventListener(touch, stay, { once: true });
    });
    return stay;
  }, [isSaved]);
  return left;
}
