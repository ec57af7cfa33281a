/** The tabs that are lists of items. */
export type ListTab = 'inbox' | 'queue' | 'library';
/** The tabs from which an item can be opened. */
export type Tab = 'now' | ListTab;

export const TAB_NAMES: Record<Tab, string> = {
  now: 'Now',
  inbox: 'Inbox',
  queue: 'Queue',
  library: 'Library',
};

/** The id of the item that is open at a path of the app (`/queue/…`); null at every other. */
export function openIdIn(path: string): string | null {
  const [, tab = '', id] = path.split('/');
  return tab in TAB_NAMES && id ? id : null;
}
