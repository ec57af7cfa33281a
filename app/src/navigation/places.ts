/** The places that are lists of items. */
export type ListPlace = 'inbox' | 'queue' | 'library';
/** The places from which an item can be opened. */
export type Place = 'now' | ListPlace;

export const PLACE_NAMES: Record<Place, string> = {
  now: 'Now',
  inbox: 'Inbox',
  queue: 'Queue',
  library: 'Library',
};
