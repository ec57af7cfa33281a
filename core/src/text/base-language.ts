/** The language of a BCP 47 tag alone: "de-CH" → "de"; English where nothing is known. */
export function baseLanguage(tag: string | null): string {
  return (tag ?? 'en').toLowerCase().split('-')[0] ?? 'en';
}
