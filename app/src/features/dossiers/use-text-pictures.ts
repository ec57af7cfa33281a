import { picturesInText, type TextPicture } from '@dorvel/core/dossier';
import type { Item } from '@dorvel/core/model';
import { useLiveQuery } from 'dexie-react-hooks';
import { useAccount } from '@/device/store/account';

/** The pictures in the texts of some items, as far as the texts are on this device. */
export function useTextPictures(items: readonly Item[]): (TextPicture & { itemId: string })[] {
  const store = useAccount((state) => state.store);
  return (
    useLiveQuery(async () => {
      const wanted = items.flatMap(({ id, capture }) =>
        capture.page?.copyId ? [{ id, copyId: capture.page.copyId }] : [],
      );
      const copies = (await store?.copies.bulkGet(wanted.map(({ copyId }) => copyId))) ?? [];
      return copies.flatMap((copy, at) =>
        copy ? picturesInText(copy.tree).map((picture) => ({ ...picture, itemId: wanted[at]?.id ?? '' })) : [],
      );
    }, [store, items]) ?? []
  );
}
