/** The places that are lists of items, in the order of the bar. */
export type ListPlace = 'inbox' | 'queue' | 'library';

export const PLACE_NAMES: Record<ListPlace, string> = { inbox: 'Inbox', queue: 'Queue', library: 'Library' };
