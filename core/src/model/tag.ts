import { z } from 'zod';

/** A tag has at most this many characters, its parents counted. */
const MAX_TAG_LENGTH = 100;

/** A word of the reader's as they write it; `garden/soil` nests under `garden`. */
export const TagName = z
  .string()
  .transform(tidyTag)
  .pipe(z.string().min(1, 'tag-empty').max(MAX_TAG_LENGTH, 'tag-too-long'));

/** " Garden / soil/" → "Garden/soil": one space between words, none about a stroke, no empty parts, no `#`. */
export function tidyTag(written: string): string {
  return written
    .normalize('NFC')
    .replace(/^[\s#]+/, '')
    .split('/')
    .map((part) => part.replace(/[\s,]+/g, ' ').trim())
    .filter(Boolean)
    .join('/');
}

/** What two spellings of one tag have in common: `Garden/Soil` and `garden/soil` are one. */
export function tagKey(name: string): string {
  return tidyTag(name).toLowerCase();
}

/** True when `key` is `parent` or nests under it. Both are keys, see tagKey. */
export function isTagWithin(key: string, parent: string): boolean {
  return key === parent || key.startsWith(`${parent}/`);
}
