import { z } from 'zod';
import { Id, Instant, SavedSearch, Scope } from '../model';
import { CHANGE, type Kind } from './kind';
import { mergeRegisters } from './registers';

/** A search is kept, or changed, or no longer kept. */
const SearchMutation = z.object({
  ...CHANGE,
  type: z.literal('search'),
  searchId: Id,
  madeAt: Instant,
  set: z.object({
    written: SavedSearch.shape.choices.shape.written.shape.value,
    scope: Scope,
    removed: z.boolean(),
  }),
});
export type SearchMutation = z.infer<typeof SearchMutation>;

/** What a kept search is after a mutation: the same on a device and on the server. */
function applySearchMutation(search: SavedSearch | undefined, mutation: SearchMutation): SavedSearch {
  const { written, scope, removed } = mutation.set;
  const at = mutation.stamp;
  const made: SavedSearch = {
    id: mutation.searchId,
    madeAt: mutation.madeAt,
    choices: {
      written: { value: written, at },
      scope: { value: scope, at },
      removed: { value: removed, at },
    },
  };
  return search ? mergeSearches(search, made) : made;
}

/** Joins two states of one kept search: each choice by its latest stamp. */
function mergeSearches(a: SavedSearch, b: SavedSearch): SavedSearch {
  return {
    ...a,
    ...b,
    madeAt: Math.min(a.madeAt, b.madeAt),
    choices: mergeRegisters(a.choices, b.choices),
  };
}

/** A query that the reader keeps. */
export const searchKind: Kind<SavedSearch, SearchMutation> = {
  name: 'search',
  plural: 'searches',
  version: 1,
  schema: SavedSearch,
  mutation: SearchMutation,
  types: ['search'],
  idOf: ({ searchId }) => searchId,
  itemIdOf: () => null,
  apply: applySearchMutation,
  merge: mergeSearches,
  restate({ id: searchId, madeAt, choices }, base) {
    const { written, scope, removed } = choices;
    const set = { written: written.value, scope: scope.value, removed: removed.value };
    return [{ ...base(removed.at), type: 'search', searchId, madeAt, set }];
  },
};
