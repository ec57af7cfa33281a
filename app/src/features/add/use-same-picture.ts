import type { Item } from '@dorvel/core/model';
import { looksTheSame } from '@dorvel/core/picture';
import { useEffect, useMemo, useState } from 'react';
import { useItems } from '@/device/store/items';

/** As much of a picture as its likeness is told by. */
const SIDE = 128;

/** What of the library looks the same as a picture that is to be saved; undefined for nothing, and while it is looked for. */
export function useSamePicture(file: File): Item | undefined {
  const items = useItems();
  const [likeness, setLikeness] = useState<string | null>(null);
  useEffect(() => {
    let isWanted = true;
    setLikeness(null);
    void likenessOfFile(file).then((told) => isWanted && setLikeness(told));
    return () => void (isWanted = false);
  }, [file]);
  return useMemo(
    () =>
      likeness === null
        ? undefined
        : items?.find(
            ({ choices, capture }) =>
              choices.stage.value !== 'let-go' &&
              capture.page?.pictures.some(({ seen }) => looksTheSame(seen?.likeness ?? null, likeness)),
          ),
    [items, likeness],
  );
}

async function likenessOfFile(file: File): Promise<string | null> {
  try {
    const { likenessOf } = await import('@dorvel/core/looking');
    const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
    const scale = Math.min(1, SIDE / Math.max(bitmap.width, bitmap.height));
    const [width, height] = [bitmap.width, bitmap.height].map((side) => Math.max(1, Math.round(side * scale))) as [
      number,
      number,
    ];
    const canvas = document.createElement('canvas');
    Object.assign(canvas, { width, height });
    const drawn = canvas.getContext('2d');
    if (!drawn) return null;
    drawn.imageSmoothingQuality = 'high';
    drawn.drawImage(bitmap, 0, 0, width, height);
    bitmap.close();
    const { data } = drawn.getImageData(0, 0, width, height);
    return likenessOf({ data: Uint8Array.from(data.filter((_, n) => n % 4 !== 3)), width, height });
  } catch (_notRead) {
    // What cannot be read is said where it is made ready to be saved.
    return null;
  }
}
