import { readAddress } from '@dorvel/core/address';
import { alreadySavedWords } from '@dorvel/core/wording';
import { useEffect } from 'react';
import { z } from 'zod';
import { takeSharedFiles } from '@/device/cache/share-cache';
import { useAccount } from '@/device/store/account';
import { choose, saveAddress } from '@/device/store/changes';
import { readSetting, writeSetting } from '@/device/store/settings-storage';
import { asEntries, usePutIn } from '@/features/collecting/put-in-store';
import { useSavingSettings } from '@/features/settings/saving-settings-store';
import { keepWhere } from '@/features/settings/where-saved';
import { useNotices } from '@/ui/notices';
import { useAddSheet } from './add-store';

const SharedTexts = z.array(z.string());

/** What a phone's share sheet hands over; which of them has the address differs from program to program. */
interface Shared {
  url?: string | undefined;
  text?: string | undefined;
  title?: string | undefined;
}

/**
 * Keeps a shared address until it can be saved: nobody may have signed in yet.
 *
 * @returns whether there was an address in it
 */
export function keepShared({ url, text, title }: Shared): boolean {
  for (const part of [url, text, title]) {
    const reading = readAddress(part ?? '');
    if (!reading.ok) continue;
    writeSetting('shared', [...readSetting('shared', SharedTexts, []), reading.address]);
    return true;
  }
  return false;
}

/** Saves what was shared, as soon as somebody has signed in. */
export function useShared(): void {
  const store = useAccount((state) => state.store);
  const show = useNotices((state) => state.show);
  useEffect(() => {
    if (!store) return;
    // Files are put before the reader, as those that are dropped on the window.
    void takeSharedFiles().then((files) => {
      if (files.length > 0) useAddSheet.getState().openWith(files);
    });
    const waiting = readSetting('shared', SharedTexts, []);
    if (waiting.length === 0) return;
    writeSetting('shared', []);
    const saveAll = async () => {
      for (const address of waiting) {
        const outcome = await saveAddress({ ok: true, address }, useSavingSettings.getState().howMuch);
        const itemId = outcome.kind === 'already-saved' ? outcome.item.id : outcome.itemId;
        const also = { label: 'Into a dossier', press: () => usePutIn.getState().ask(asEntries([itemId])) };
        if (outcome.kind === 'already-saved') show({ text: alreadySavedWords(outcome.item), also });
        else {
          void keepWhere([itemId]);
          show({
            text: 'Saved to Inbox.',
            also,
            action: { label: 'Undo', press: () => void choose(outcome.itemId, { stage: 'let-go' }) },
          });
        }
      }
    };
    void saveAll();
  }, [store, show]);
}
