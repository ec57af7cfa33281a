import { canonicalAddress, readAddress } from '@dorvel/core/address';
import { saveAddress } from '@/device/store/changes';
import { syncSoon } from '@/device/sync/sync-loop';

const PATH = '/guide/how-to-use-dorvel.html';

const address = () => new URL(PATH, location.origin).href;

/** By what the guide is known among items. */
export const guideKey = () => canonicalAddress(address());

/**
 * Puts the guide into the Inbox, with its text from the app's own package: it is on the device as any text is, and the page
 * need not be fetched. Where it is in the library already it comes to the top.
 *
 * @returns the id of its item
 * @throws what fetch throws where the app's package is not to be had
 */
export async function saveGuide(): Promise<string> {
  const reading = readAddress(address());
  if (!reading.ok) throw new Error(reading.says);
  const answer = await fetch(PATH);
  if (!answer.ok) throw new TypeError(`the guide: ${answer.status}`);
  const given = { type: 'text/html', body: await answer.text(), encoding: 'utf8' } as const;
  const outcome = await saveAddress(reading, 'words-and-pictures', given);
  syncSoon();
  return outcome.kind === 'saved' ? outcome.itemId : outcome.item.id;
}
