import { tidiedTree, tidyingOf } from '../copies';
import { tagsOf, type Copy, type Item } from '../model';
import { plainText } from '../text';
import { z } from 'zod';
import { hostOf } from './facts';
import type { FieldTerms } from './search-index';
import { searchTerms } from './words';

/** Goes up when terms are made otherwise: those of before are then made anew. */
const TERMS_VERSION = 1;

/** What an item is found by, besides the text of its copy. */
export interface FindableItem {
  title: string;
  source: string;
  tags: string;
  note: string;
  language: string | null;
}

function findableOf(item: Item): FindableItem {
  const page = item.capture.page;
  return {
    title: [item.choices.title.value, page?.title].filter(Boolean).join(' · '),
    source: [page?.siteName, hostOf(item.address), ...(page?.authors ?? [])].filter(Boolean).join(' · '),
    tags: tagsOf(item).join(' · '),
    note: item.choices.note.value,
    language: page?.language ?? null,
  };
}

/**
 * An item in terms, field by field.
 *
 * @param body the plain text of its copy; empty when there is none
 */
export function fieldTerms(item: FindableItem, body: string): FieldTerms {
  const terms = (text: string) => searchTerms(text, item.language).join(' ');
  return {
    title: terms(item.title),
    source: terms(item.source),
    tags: terms(item.tags),
    note: terms(item.note),
    body: terms(body),
  };
}

/** What an item stands in an index as; it is put in anew when this becomes another. @param copyId of the text that is at hand */
export function findableKey(item: Item, copyId: string | null): string {
  const out = copyId === null ? [] : (tidyingOf(item.choices, copyId)?.out ?? []);
  return JSON.stringify([TERMS_VERSION, copyId, out, findableOf(item)]);
}

/** True when two keys stand for one text, whatever else has changed: its terms need not be made anew. */
export function isSameText(oneKey: string, otherKey: string): boolean {
  const textOf = (key: string) => JSON.stringify(z.array(z.unknown()).parse(JSON.parse(key)).slice(0, -1));
  return textOf(oneKey) === textOf(otherKey);
}

/** The text of a copy as it is read: without the blocks that the reader took out of it. */
export function readText(item: Item, copy: Pick<Copy, 'id' | 'tree'>): string {
  return plainText(tidiedTree(copy.tree, tidyingOf(item.choices, copy.id)?.out ?? [])).text;
}

/**
 * An item in terms.
 *
 * @param copy null when its text is not at hand
 * @param bodyTerms of its text, where they were made before
 */
export function itemTerms(
  item: Item,
  copy: Pick<Copy, 'id' | 'tree'> | null,
  bodyTerms?: string,
): FieldTerms {
  if (bodyTerms !== undefined) return { ...fieldTerms(findableOf(item), ''), body: bodyTerms };
  return fieldTerms(findableOf(item), copy ? readText(item, copy) : '');
}
