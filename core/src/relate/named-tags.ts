import { stemmerOf } from '../terms';
import { baseLanguage } from '../text';

/**
 * Those of the reader's tags that a text makes much of: by the last part of a nested one, whatever its inflection.
 *
 * @param subjects keys of the text's names and terms; see keyPhrases
 * @param tags as the reader writes them
 * @param language of the text: BCP 47 tag, or null when not known
 */
export function namedTags(subjects: readonly string[], tags: readonly string[], language: string | null): string[] {
  const stem = stemmerOf(baseLanguage(language));
  const spokenOf = new Set(subjects);
  const keyOf = (tag: string) =>
    (tag.split('/').at(-1) ?? '')
      .toLowerCase()
      .split(/[\s-]+/u)
      .filter(Boolean)
      .map(stem)
      .join(' ');
  return tags.filter((tag) => spokenOf.has(keyOf(tag)));
}
