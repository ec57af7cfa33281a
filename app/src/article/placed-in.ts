import type { TextRange } from '@dorvel/core/text';

/** A part of a text with its words. */
interface Worded extends TextRange {
  form: string;
}

/**
 * Parts of a text where they stand in one that may be without some blocks of the one in which they were found; those that
 * stood only in these are left out.
 */
export function placedIn<Part extends Worded>(text: string, parts: readonly Part[]): readonly Part[] {
  return parts
    .flatMap((part) => {
      if (text.startsWith(part.form, part.start)) return [part];
      const start = text.indexOf(part.form);
      return start === -1 ? [] : [{ ...part, start, end: start + part.form.length }];
    })
    .sort((a, b) => a.start - b.start);
}
