import { z } from 'zod';
import { hostOf } from '../address';
import { tidyingOf, treeAsRead } from '../copies';
import { type Copy, type Item, type Note, tagsOf } from '../model';
import { isLive, noteText } from '../notes';
import { plainText } from '../text';
import type { FieldTerms } from './search-index';
import { searchTerms } from './words';

/** Goes up when terms are made otherwise: those of before are then made again. */
const TERMS_VERSION = 1;

/** What an item is found by, besides the text of its copy. */
export interface FindableItem {
  title: string;
  source: string;
  tags: string;
  note: string;
  language: string | null;
}

/** What the reader wrote on items and on passages of them, by item. In one order everywhere, so that the same words make the same key. */
export function notesByItem(notes: readonly Note[]): ReadonlyMap<string, readonly string[]> {
  const byItem = new Map<string, string[]>();
  for (const note of [...notes].sort((a, b) => (a.id < b.id ? -1 : 1))) {
    if (note.itemId === null || !isLive(note)) continue;
    byItem.set(note.itemId, [...(byItem.get(note.itemId) ?? []), noteText(note)]);
  }
  return byItem;
}

const NO_NOTES: readonly string[] = [];

function findableOf(item: Item, notes: readonly string[]): FindableItem {
  const page = item.capture.page;
  return {
    title: [item.choices.title.value, page?.title ?? item.choices.listedAs.value].filter(Boolean).join(' · '),
    source: [...new Set([page?.siteName, hostOf(item.address), ...(page?.authors ?? [])])].filter(Boolean).join(' · '),
    tags: tagsOf(item).join(' · '),
    note: notes.join(' · '),
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

/**
 * What an item stands in an index as; it is put in again when this becomes another.
 *
 * @param copyId of the text that is at hand
 * @param notes what the reader wrote on it
 */
export function findableKey(item: Item, copyId: string | null, notes: readonly string[] = NO_NOTES): string {
  const out = copyId === null ? [] : (tidyingOf(item.choices, copyId)?.out ?? []);
  const { value: typed } = item.choices.typed;
  const putRight = Object.entries(item.putRight).map(([place, { value }]) => [place, value.was, value.is]);
  const said = putRight.length > 0 || typed ? [{ putRight: putRight.sort(), typed }] : [];
  return JSON.stringify([TERMS_VERSION, copyId, out, ...said, findableOf(item, notes)]);
}

/** True when two keys stand for one text, whatever else has changed: its terms need not be made again. */
export function isSameText(oneKey: string, otherKey: string): boolean {
  const withoutFindable = (key: string) => JSON.stringify(z.array(z.unknown()).parse(JSON.parse(key)).slice(0, -1));
  return withoutFindable(oneKey) === withoutFindable(otherKey);
}

/** The text of a copy as it is read: see treeAsRead. */
export function readText(item: Item, copy: Pick<Copy, 'id' | 'tree' | 'recognised'>): string {
  return plainText(treeAsRead(copy, item)).text;
}

/**
 * An item in terms.
 *
 * @param copy null when its text is not at hand
 * @param notes what the reader wrote on it
 * @param bodyTerms of its text, where they were made before
 */
export function itemTerms(
  item: Item,
  copy: Pick<Copy, 'id' | 'tree' | 'recognised'> | null,
  notes: readonly string[] = NO_NOTES,
  bodyTerms?: string,
): FieldTerms {
  const findable = findableOf(item, notes);
  if (bodyTerms !== undefined) return { ...fieldTerms(findable, ''), body: bodyTerms };
  return fieldTerms(findable, copy ? readText(item, copy) : '');
}
