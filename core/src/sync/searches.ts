import type { SavedSearch, SearchMutation } from '../model';
import { mergeRegisters } from './merge';

/** What a kept search is after a mutation: the same on a device and on the server. */
export function applySearchMutation(search: SavedSearch | undefined, mutation: SearchMutation): SavedSearch {
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
export function mergeSearches(a: SavedSearch, b: SavedSearch): SavedSearch {
  return {
    id: a.id,
    madeAt: Math.min(a.madeAt, b.madeAt),
    choices: mergeRegisters(a.choices, b.choices),
  };
}
