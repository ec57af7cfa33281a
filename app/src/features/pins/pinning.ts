import type { PinSubject } from '@dorvel/core/model';
import { pin } from '@/device/store/changes';
import { useNotices } from '@/ui/notices';

/** Pins something to Now, with a way back. @param what it is, as a sentence begins with it: "The note" */
export function pinTo(id: string, of: PinSubject, what: string): void {
  void pin(id, of, true);
  useNotices.getState().show({
    text: `${what} stands on Now.`,
    action: { label: 'Undo', press: () => void pin(id, of, false) },
  });
}

/** Takes something off Now, with a way back. */
export function unpin(id: string, of: PinSubject, what: string): void {
  void pin(id, of, false);
  useNotices.getState().show({
    text: `${what} does not stand on Now any more.`,
    action: { label: 'Undo', press: () => void pin(id, of, true) },
  });
}
