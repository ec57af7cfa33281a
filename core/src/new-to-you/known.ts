import { baseLanguage, type PlainText, type TextRange } from '../text';
import { type Statement, statementsOf } from './statements';

/** A text of which the reader has passed a part. */
export interface Passed {
  id: string;
  plain: PlainText;
  /** BCP 47 tag, or null when not known. */
  language: string | null;
  /** The offset up to which it was read or heard. */
  until: number;
}

/** A sentence that says what the reader has met already. */
export interface Known extends TextRange {
  /** Of the text in which it was met. */
  id: string;
  /** Where there. */
  met: TextRange;
}

/**
 * So much of what a sentence says, by weight, has to stand in one or two neighbouring sentences that were passed. Chosen
 * on texts that are made from the demo's, and judged on FOLDOC's: see bench/new-to-you.mjs. What is called known and is
 * not costs a reader more than what is known and not called so.
 */
const ENOUGH = 0.7;
/** What says so little cannot be told from another sentence that says as little. */
const LEAST_TERMS = 3;
/** Of what says little, all has to be there, and in one sentence that does not say much more. */
const FEW_TERMS = 5;
const MORE_BY = 2;
/** So many words in one order are the same sentence, whatever they weigh. */
const SAME_WORDS = 5;
/** Sentences in which as much is said as in many hold anything. */
const MOST_TERMS_MET = 60;
/** Of the terms of a sentence, so many of the rarest are looked up: a sentence that has none of them does not say it. */
const LOOKED_UP = 5;

/** A sentence that was passed, or two neighbours. */
interface Met {
  id: string;
  said: Statement;
  isTwo: boolean;
}

/**
 * Which sentences of a text say what has been passed in others: by the terms, names and numbers that they share. A
 * sentence with a name or a number that the other lacks, that denies what the other does not, or that has the opposite
 * of one of its words, is new however much else it shares. A text in another language says nothing here.
 *
 * A term weighs the more the fewer of all these sentences have it (inverse document frequency over sentences: Spärck
 * Jones 1972); how much of a sentence another one holds is their weighted containment (Broder 1997, with weights).
 *
 * @returns in the order of the text
 */
export function knownIn(plain: PlainText, language: string | null, passed: readonly Passed[]): Known[] {
  const base = baseLanguage(language);
  const own = statementsOf(plain, language);
  const met = passed
    .filter((text) => baseLanguage(text.language) === base)
    .flatMap(({ id, plain: theirs, language: tag, until }): Met[] => {
      const said = statementsOf(theirs, tag, until);
      return said.flatMap((each, at) => {
        const next = said[at + 1];
        // Of two, which of them is denied could not be told.
        const both = next && !each.denies && !next.denies ? [{ id, said: joined(each, next), isTwo: true }] : [];
        return [{ id, said: each, isTwo: false }, ...both];
      });
    });
  const weigh = weightsOf([...own, ...met.map(({ said }) => said)]);
  const having = new Map<string, number[]>();
  for (const [at, { said }] of met.entries())
    for (const term of [...said.terms, ...said.numbers]) {
      const list = having.get(term);
      if (list) list.push(at);
      else having.set(term, [at]);
    }
  const byWords = new Map(met.map((each) => [each.said.words.join(' '), each]));
  return own.flatMap((said) => {
    const same = said.words.length >= SAME_WORDS ? byWords.get(said.words.join(' ')) : undefined;
    const best = same ?? bestOf(said, met, having, weigh);
    return best
      ? [{ start: said.start, end: said.end, id: best.id, met: { start: best.said.start, end: best.said.end } }]
      : [];
  });
}

function bestOf(
  said: Statement,
  met: readonly Met[],
  having: ReadonlyMap<string, readonly number[]>,
  weigh: (term: string) => number,
): Met | null {
  const carried = [...said.carried, ...said.numbers];
  if (carried.length < LEAST_TERMS) return null;
  const rarest = [...carried].sort((a, b) => weigh(b) - weigh(a)).slice(0, LOOKED_UP);
  const looked = new Set(rarest.flatMap((term) => having.get(term) ?? []));
  const whole = carried.reduce((sum, term) => sum + weigh(term), 0);
  let best: { met: Met; held: number } | null = null;
  for (const at of looked) {
    const each = met[at];
    if (!each || each.said.terms.size > MOST_TERMS_MET || saysOtherwise(said, each.said)) continue;
    const shared = carried.reduce(
      (sum, term) => sum + (each.said.terms.has(term) || each.said.numbers.has(term) ? weigh(term) : 0),
      0,
    );
    const held = shared / whole;
    const isFew = carried.length < FEW_TERMS;
    const enough = isFew ? 1 : ENOUGH;
    if (isFew && (each.isTwo || each.said.terms.size > MORE_BY * carried.length)) continue;
    // Of one sentence and the two it is part of, the one is the place.
    const isShorter = best !== null && held === best.held && lengthOf(each) < lengthOf(best.met);
    if (held >= enough && (best === null || held > best.held || isShorter)) best = { met: each, held };
  }
  return best?.met ?? null;
}

const lengthOf = ({ said }: Met): number => said.end - said.start;

/** Whether a sentence has something that makes it another statement, however much it shares with one that was met. */
function saysOtherwise(said: Statement, met: Statement): boolean {
  if (said.denies !== met.denies) return true;
  for (const number of said.numbers) if (!met.numbers.has(number)) return true;
  for (const name of said.names) if (!met.terms.has(name)) return true;
  for (const [word, opposite] of said.turns) if (met.turns.has(opposite) && !met.turns.has(word)) return true;
  for (const term of said.terms) if (!met.terms.has(term) && isContraryIn(term, met.terms)) return true;
  return !inSameOrder(said.names, met.names);
}

/** What makes a word its contrary in English, and in the languages that took it from where English did. */
const CONTRARY_PREFIXES = ['un', 'non', 'in', 'im', 'il', 'ir', 'dis', 'a', 'de', 'mis'];

/** Whether a term stands among others as its contrary: *safe* where they have *unsafe*. */
function isContraryIn(term: string, others: ReadonlySet<string>): boolean {
  return CONTRARY_PREFIXES.some(
    (prefix) => others.has(prefix + term) || (term.startsWith(prefix) && others.has(term.slice(prefix.length))),
  );
}

/** Whether the names that both have come in one order: who did it to whom. */
function inSameOrder(names: readonly string[], others: readonly string[]): boolean {
  const places = names.map((name) => others.indexOf(name)).filter((place) => place !== -1);
  return places.every((place, at) => at === 0 || place > (places[at - 1] ?? -1));
}

/** Two neighbouring sentences, neither of which denies anything, as one: a retelling often makes one of two. */
function joined(one: Statement, next: Statement): Statement {
  return {
    start: one.start,
    end: next.end,
    words: [...one.words, ...next.words],
    terms: new Set([...one.terms, ...next.terms]),
    numbers: new Set([...one.numbers, ...next.numbers]),
    names: [...new Set([...one.names, ...next.names])],
    denies: false,
    turns: new Map([...one.turns, ...next.turns]),
    carried: new Set([...one.carried, ...next.carried]),
  };
}

function weightsOf(all: readonly Statement[]): (term: string) => number {
  const having = new Map<string, number>();
  for (const { terms, numbers } of all)
    for (const term of [...terms, ...numbers]) having.set(term, (having.get(term) ?? 0) + 1);
  return (term) => Math.log(1 + all.length / (having.get(term) ?? 1));
}
