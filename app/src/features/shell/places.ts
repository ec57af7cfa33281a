/** The places of the app, in the order of the bar. */
export const LIST_PLACES = ['inbox', 'queue', 'library'] as const;
export type ListPlace = (typeof LIST_PLACES)[number];

export const PLACE_NAMES: Record<ListPlace, string> = { inbox: 'Inbox', queue: 'Queue', library: 'Library' };

export function isListPlace(value: unknown): value is ListPlace {
  return LIST_PLACES.includes(value as ListPlace);
}
