import type { Note } from '../model';

/**
 * The note that an item or a highlight has a field for. It has the id of what it stands on, so that two devices which begin
 * it while apart write the same one.
 */
export const ownNote = {
  ofItem: (itemId: string): Pick<Note, 'id' | 'itemId' | 'on'> => ({
    id: itemId,
    itemId,
    on: { kind: 'item' },
  }),
  ofHighlight: ({ id, itemId }: { id: string; itemId: string }): Pick<Note, 'id' | 'itemId' | 'on'> => ({
    id,
    itemId,
    on: { kind: 'highlight', id },
  }),
};
