/** How fast a voice may go: below, words fall apart; above, even practised listeners lose them. */
export const RATE_RANGE = { slowest: 0.6, fastest: 3, step: 0.1 } as const;

/** A rate brought into its range and onto its steps. */
export function toRate(rate: number): number {
  const { slowest, fastest, step } = RATE_RANGE;
  return Math.round(Math.min(fastest, Math.max(slowest, rate)) / step) / (1 / step);
}

/**
 * The first of some voices' languages that can read a text.
 *
 * @param wanted BCP 47 tag of the text; null is taken for English
 * @param languages BCP 47 tags of the voices, best first
 * @returns the index of the voice: same language and region, else same language; -1 when there is none
 */
export function voiceFor(wanted: string | null, languages: readonly string[]): number {
  const tag = (wanted ?? 'en').toLowerCase();
  const base = tag.split('-')[0];
  const tags = languages.map((language) => language.toLowerCase().replace('_', '-'));
  const exact = tags.indexOf(tag);
  return exact !== -1 ? exact : tags.findIndex((language) => language.split('-')[0] === base);
}
