import type { Doubt, Evidence } from '@dorvel/core/model';

/** What each kind of evidence says of a block that is text, and of one that is not. */
const WORDS: Record<Evidence, { text: string; other: string }> = {
  words: { text: 'reads like sentences', other: 'reads like a label' },
  tag: { text: 'made as a paragraph', other: 'made as something else' },
  place: { text: 'where a text stands', other: 'where a text seldom stands' },
  rules: { text: 'within the main part', other: 'at the edge of the main part' },
  names: { text: 'named as text', other: 'named as surroundings' },
  neighbours: { text: 'among sentences', other: 'among links and labels' },
  headings: { text: 'under a heading of the text', other: 'under a heading of something else' },
  boxes: { text: 'in a box of text', other: 'in a box of other things' },
  repetition: { text: 'unlike what is beside it', other: 'one of several alike' },
  stated: { text: 'stated as the text', other: 'not stated as the text' },
};

/** Why a block may not belong to the text, in one line. */
export function reasonsOf({ speaksFor, speaksAgainst }: Doubt): string {
  const against = speaksAgainst.map((each) => WORDS[each].other).join(', ');
  const its = speaksFor.map((each) => WORDS[each].text).join(', ');
  return ['May not belong', against && `: ${against}`, '.', its && ` But ${its}.`].filter(Boolean).join('');
}
