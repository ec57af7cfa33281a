import type { StatedThing, Thing } from './linked-data';

/** Properties whose words are those of the article, and those whose words are somebody else's (schema.org 29). */
const OWN = new Set(
  'articleBody recipeIngredient ingredients recipeInstructions acceptedAnswer suggestedAnswer'.split(' '),
);
const OTHERS = new Set('reviewBody comment commentText'.split(' '));
const INSIDE = ['text', 'name', 'itemListElement', 'recipeInstructions'];

const MOST_TEXTS = 500;
const MOST_CHARS = 200_000;

/** What a page states in its data of the words of its article, and of what others wrote below it. */
export function statedTexts(things: readonly StatedThing[]): { own: string[]; others: string[] } {
  const out = { own: [] as string[], others: [] as string[] };
  let chars = 0;
  const collect = (value: unknown, into: string[], depth: number) => {
    if (typeof value === 'string') {
      if (into.length >= MOST_TEXTS || chars > MOST_CHARS) return;
      chars += value.length;
      into.push(value.replace(/<[^>]{0,300}>/g, ' '));
    } else if (Array.isArray(value)) for (const each of value) collect(each, into, depth);
    else if (value !== null && typeof value === 'object' && depth < 5)
      for (const key of INSIDE) collect((value as Thing)[key], into, depth + 1);
  };
  for (const { thing } of things)
    for (const [key, value] of Object.entries(thing)) {
      if (OWN.has(key)) collect(value, out.own, 0);
      else if (OTHERS.has(key)) collect(value, out.others, 0);
    }
  return out;
}
