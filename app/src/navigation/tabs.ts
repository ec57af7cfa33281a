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
