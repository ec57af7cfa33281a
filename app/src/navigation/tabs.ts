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

/** Whether a name is that of a tab, as its address has it. */
export const isTab = (name: string | undefined): name is Tab => name !== undefined && name in TAB_NAMES;

/** The id of the item that is open at a path of the app (`/queue/…`); null at every other. */
export function openIdIn(path: string): string | null {
  const [, tab = '', id] = path.split('/');
  return isTab(tab) && id ? id : null;
}
