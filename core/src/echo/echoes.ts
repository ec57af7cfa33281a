import { type KeyPhrase, keyPhrases, type PhraseSurroundings, shownIn } from '../terms';
import { type PlainText, sentences, type TextRange } from '../text';
import type { EchoIndex, SpokenOf } from './echo-index';

/** A term of a text that stands elsewhere in the reader's library too, at the place where it is marked. */
export interface Echo extends TextRange {
  /** See keyPhrases. */
  key: string;
  /** As it stands there. */
  form: string;
  /** The other items that speak of it, those that make most of it first. */
  items: string[];
}

/** How many echoes a reader wants: a few, more, or none. */
export type EchoDensity = 'few' | 'more' | 'none';

/** So many words for each echo, at least: more would be noise. */
const WORDS_AN_ECHO: Readonly<Record<Exclude<EchoDensity, 'none'>, number>> = { few: 120, more: 60 };
/** So many of the terms that a text makes most of are its subjects. */
const SUBJECTS = 10;
/** A term of one word that is no name has to be made much of, here as there. */
const WORD_ALONE = 0.5;

/** What is known of a text. */
interface About extends PhraseSurroundings {
  /** How many words it has. */
  words: number;
}

interface EchoWishes {
  density: EchoDensity;
  /** The items that are not meant: the one that is open, those of a silenced site. */
  not(id: string): boolean;
  /** Keys of silenced terms. */
  silenced: ReadonlySet<string>;
}

/**
 * The echoes of a text: its names and terms that other items of the library speak of, the most telling of them, each
 * marked once, where it stands first.
 *
 * @param text plain; the ranges of its surroundings are counted in it
 * @returns in the order of the text
 */
export function echoesOf(text: string, about: About, index: EchoIndex, { density, not, silenced }: EchoWishes): Echo[] {
  if (density === 'none') return [];
  const most = Math.floor(about.words / WORDS_AN_ECHO[density]);
  const telling = keyPhrases(text, about)
    .map((phrase, rank) => ({ phrase, wanted: { key: phrase.key, ...wantedOf(phrase, rank), not } }))
    .filter(({ phrase: { key } }) => ![...silenced].some((silent) => holds(silent, key)))
    .map(({ phrase, wanted }) => ({ phrase, wanted, worth: worthOf(phrase) * index.worth(wanted) }))
    .filter(({ worth }) => worth > 0)
    .sort((a, b) => b.worth - a.worth || (a.phrase.key < b.phrase.key ? -1 : 1));
  const chosen: Echo[] = [];
  for (const { phrase, wanted } of telling) {
    if (chosen.length === most) break;
    const { key, first } = phrase;
    // A word of a term that is marked already says nothing more.
    if (chosen.some((echo) => holds(echo.key, key) || holds(key, echo.key))) continue;
    chosen.push({ ...first, key, form: text.slice(first.start, first.end), items: index.speaking(wanted) });
  }
  return chosen.sort((a, b) => a.start - b.start);
}

const isOneWord = (key: string): boolean => !key.includes(' ');

function worthOf({ key, isName, salience }: KeyPhrase): number {
  return salience * (isOneWord(key) && !isName ? WORD_ALONE : 1);
}

/**
 * What another item has to make of a term: it says a name once; what is said once here, twice there; a word that is no
 * name is a subject of both, or no echo.
 */
function wantedOf({ key, isName, count }: KeyPhrase, rank: number): Pick<SpokenOf, 'least' | 'within' | 'isName'> {
  if (isName) return { isName, least: 1, within: Infinity };
  if (!isOneWord(key)) return { isName, least: count > 1 ? 1 : 2, within: Infinity };
  return { isName, least: 3, within: rank < SUBJECTS ? SUBJECTS : 0 };
}

/** Whether a term has all words of another, side by side. */
const holds = (longer: string, shorter: string): boolean => ` ${longer} `.includes(` ${shorter} `);

/** Where a text speaks of a term: the sentence in which it stands first, and the term in it. */
export interface EchoPassage extends TextRange {
  text: string;
  /** The term, as offsets of the whole text. */
  term: TextRange;
}

/**
 * The passage of a text that speaks of a term.
 *
 * @param key see keyPhrases
 * @returns null when it does not
 */
export function passageOn(key: string, plain: PlainText, about: Pick<About, 'title' | 'language'>): EchoPassage | null {
  const term = keyPhrases(plain.text, { ...about, ...shownIn(plain) }).find((phrase) => phrase.key === key)?.first;
  const sentence =
    term && sentences(plain.text, about.language).find(({ start, end }) => start <= term.start && term.start < end);
  if (!sentence) return null;
  const { start, end } = sentence;
  return { start, end, text: plain.text.slice(start, end), term };
}
