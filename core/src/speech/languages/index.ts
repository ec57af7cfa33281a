import { americanEnglish, english } from './english';
import { french } from './french';
import { german } from './german';
import { italian } from './italian';
import type { SpokenLanguage } from './language';
import { spanish } from './spanish';

const LANGUAGES: Readonly<Record<string, SpokenLanguage>> = {
  en: english,
  de: german,
  fr: french,
  es: spanish,
  it: italian,
};

/** The table of a language; undefined for one that has none. @param language BCP 47 tag; null is taken for English */
export function spokenLanguage(language: string | null): SpokenLanguage | undefined {
  const tag = (language ?? 'en').toLowerCase().replace('_', '-');
  if (tag === 'en-us') return americanEnglish;
  return LANGUAGES[tag.split('-')[0] ?? ''];
}
