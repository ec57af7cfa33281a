import { baseLanguage, type TextRange } from '../text';
import { stemmerOf } from './stems';
import { stopWordsOf } from './stop-words';
import { isUnspaced, plainWord, type Word, wordsIn } from './words';

/** A name or a term that a text comes back to. */
export interface KeyPhrase {
  /** Its words by stem, with spaces between: the same for all its inflections. */
  key: string;
  /** As it is written most often in the text. */
  form: string;
  /** How often it stands there. */
  count: number;
  /** How much the text itself makes of it, above 0: how often, how long, where, and whether it is written as a name. */
  salience: number;
  isName: boolean;
  /** Where it stands first. */
  first: TextRange;
}

/** What is known of a text beside its words. */
export interface PhraseSurroundings {
  title: string | null;
  /** BCP 47 tag, or null when not known. */
  language: string | null;
  /** Where its headings stand, in UTF-16 units. */
  headings?: readonly TextRange[];
  /** Where links, quotations of a few words and emphasis stand. */
  pointedOut?: readonly TextRange[];
}

/** The longest run of words that is taken for one term. Common practice. */
const MAX_WORDS = 4;
/** The tail of a text's terms is passing words. */
export const MAX_PHRASES = 60;
/** What may stand small inside a name that is written in capitals: University of Skerrow, Ludwig van Beethoven. */
const JOINTS = new Set('of de du des la le del della di da do dos das von van der den zu y et e and the'.split(' '));
/** Languages in which every noun has a capital, so that one capital says nothing. */
const CAPITALISED_NOUNS = new Set(['de', 'lb']);

interface Token extends Word {
  plain: string;
  stem: string;
  isStop: boolean;
  /** Written with a capital where no sentence begins. */
  isCapital: boolean;
  beginsSentence: boolean;
  isNumber: boolean;
  /** What stands between it and the word before. */
  isJoined: boolean;
}

interface Candidate {
  key: string;
  words: number;
  count: number;
  /** How often it was written with capitals where no sentence began, and how often it could have been. */
  capitals: number;
  inside: number;
  first: TextRange;
  forms: Map<string, number>;
  heading: boolean;
  pointedOut: boolean;
}

/**
 * The names and terms of a text, those that it makes most of first.
 *
 * Candidates are runs of words between stop words and punctuation (Rose, Engel, Cramer, Cowley 2010, RAKE), of at most
 * four words, and capitalised runs with a small joint inside; no months or days of the week. What only stands inside a
 * longer term is worth less, as with the C-value (Frantzi, Ananiadou, Mima 2000), though by the commonest of these and
 * not by their mean; where it stands first counts (KEA: Witten et al. 1999). How rare a term is in the library is for the
 * library to say; see relate.
 *
 * @param text plain text; the ranges of its surroundings are counted in it
 * @returns at most 60
 */
export function keyPhrases(text: string, surroundings: PhraseSurroundings): KeyPhrase[] {
  const { title, headings = [], pointedOut = [] } = surroundings;
  const language = baseLanguage(surroundings.language);
  const candidates = new Map<string, Candidate>();
  const body = tokensOf(text, language);
  const [inHeading, isPointedOut] = [insideAny(headings), insideAny(pointedOut)];
  gather(body, candidates, language, (first, last) => ({
    heading: inHeading(first.start, last.end),
    pointedOut: isPointedOut(first.start, last.end),
  }));
  const ofTitle = new Map<string, Candidate>();
  if (title !== null)
    gather(tokensOf(title, language), ofTitle, language, () => ({ heading: true, pointedOut: false }));
  return weighed(candidates, ofTitle);
}

function tokensOf(text: string, language: string): Token[] {
  const stem = stemmerOf(language);
  const stopWords = stopWordsOf(language);
  const days = dayNamesOf(language, stem);
  // Short forms are as empty as what they are short for: I'd, we've.
  const isStopWord = (plain: string) => stopWords.has(plain) || stopWords.has(plain.replace(/['’].*$/u, ''));
  const tokens: Token[] = [];
  let end = 0;
  for (const word of wordsIn(text, language)) {
    const plain = plainWord(word.form);
    const between = text.slice(end, word.start);
    const isNumber = !/\p{L}/u.test(plain);
    const tooShort = plain.length < (isUnspaced(plain) ? 1 : 2);
    const beginsSentence = tokens.length === 0 || /[.!?…:;\n]|[“"«‘(]$/u.test(between);
    const capital = /^\p{Lu}/u.test(word.form);
    // 230 °C, 12 V.
    const isUnit = /[°\d]\s?$/u.test(between);
    tokens.push({
      ...word,
      plain,
      stem: isNumber ? plain : stem(plain),
      isStop: isStopWord(plain) || days.has(stem(plain)) || (tooShort && (!capital || isUnit)),
      isCapital: capital,
      beginsSentence,
      isNumber,
      isJoined: tokens.length > 0 && (isUnspaced(word.form) ? between === '' : /^[\s\u00ad-]$/u.test(between)),
    });
    end = word.end;
  }
  return tokens;
}

const dayNames = new Map<string, ReadonlySet<string>>();

/** The names of months and of days of the week (CLDR, by Intl), by stem: dates name nothing that texts share. */
function dayNamesOf(language: string, stem: (word: string) => string): ReadonlySet<string> {
  const known = dayNames.get(language);
  if (known) return known;
  const name = (options: Intl.DateTimeFormatOptions, day: Date) =>
    new Intl.DateTimeFormat(/^[a-z]{2,3}$/.test(language) ? language : 'en', { ...options, timeZone: 'UTC' })
      .format(day)
      .toLowerCase();
  const lengths = ['long', 'short'] as const;
  const names = new Set(
    lengths
      .flatMap((length) => [
        ...Array.from({ length: 12 }, (_, n) => name({ month: length }, new Date(Date.UTC(2026, n, 1)))),
        ...Array.from({ length: 7 }, (_, n) => name({ weekday: length }, new Date(Date.UTC(2026, 0, 1 + n)))),
      ])
      .map((each) => stem(plainWord(each))),
  );
  dayNames.set(language, names);
  return names;
}

/** Whether a range lies inside one of some others. */
function insideAny(ranges: readonly TextRange[]): (start: number, end: number) => boolean {
  if (ranges.length === 0) return () => false;
  return (start, end) => ranges.some((range) => range.start <= start && end <= range.end);
}

type Marks = (first: Token, last: Token) => { heading: boolean; pointedOut: boolean };

function gather(tokens: readonly Token[], into: Map<string, Candidate>, language: string, marksOf: Marks): void {
  tokens.forEach((first, from) => {
    if (first.isStop || first.isNumber) return;
    for (let to = from; to < Math.min(tokens.length, from + MAX_WORDS); to++) {
      const last = tokens[to];
      if (!last || (to > from && !last.isJoined)) break;
      if (last.isStop) {
        // Inside a name a small joint does not end the run.
        const next = tokens[to + 1];
        const isJoint = JOINTS.has(last.plain) && first.isCapital && next?.isCapital && !next.isStop && next.isJoined;
        if (!isJoint) break;
        continue;
      }
      if (last.isNumber && !(tokens[to - 1]?.isCapital && last.form.length <= 4)) break;
      note(into, tokens.slice(from, to + 1), language, marksOf(first, last));
    }
  });
}

function note(
  into: Map<string, Candidate>,
  run: readonly Token[],
  language: string,
  marks: { heading: boolean; pointedOut: boolean },
): void {
  const [first] = run;
  if (!first) return;
  const key = run.map(({ stem }) => stem).join(' ');
  // Where no sentence begins a capital says that this is a name; in German only that of a word which is no noun would.
  const couldShow = !first.beginsSentence || run.length > 1;
  const shows = run.every(
    ({ isCapital, isStop, isNumber, beginsSentence }, n) =>
      isCapital || isStop || isNumber || (n === 0 && beginsSentence && isCapital),
  );
  const candidate = into.get(key) ?? {
    key,
    words: run.length,
    count: 0,
    capitals: 0,
    inside: 0,
    first: { start: first.start, end: run.at(-1)?.end ?? first.end },
    forms: new Map<string, number>(),
    heading: false,
    pointedOut: false,
  };
  candidate.count += 1;
  if (couldShow) {
    candidate.inside += 1;
    if (shows && !CAPITALISED_NOUNS.has(language)) candidate.capitals += 1;
  }
  candidate.heading ||= marks.heading;
  candidate.pointedOut ||= marks.pointedOut;
  const form = run
    .map((token, n) => (n === run.length - 1 ? token.form.replace(/['’]s?$/u, '') : token.form))
    .join(' ');
  candidate.forms.set(form, (candidate.forms.get(form) ?? 0) + 1);
  into.set(key, candidate);
}

/** What the places and the looks of a term are worth. Chosen on one half of FOLDOC's entries, judged on the other. */
const WORTH = { name: 2, title: 1.3, heading: 1.3, pointedOut: 1.5 };
/** What a term of several words counts for that only stands inside one longer term. */
const ONLY_INSIDE = 0.4;
/** From here on, in UTF-16 units, a first occurrence counts half as early. */
const EARLY = 300;

function weighed(candidates: ReadonlyMap<string, Candidate>, ofTitle: ReadonlyMap<string, Candidate>): KeyPhrase[] {
  const all = [...candidates.values()];
  const [insideAnyTerm, insideNames] = [nestedIn(all), nestedIn(all.filter(isName))];
  const found: KeyPhrase[] = [];
  for (const candidate of all) {
    const { key, count, words, first } = candidate;
    const named = isName(candidate);
    // A name is one whatever verb stands behind it; a term of several words may be found by itself in another text.
    const alone = named
      ? count - (insideNames.get(key) ?? 0)
      : Math.max(count - (insideAnyTerm.get(key) ?? 0), words > 1 ? ONLY_INSIDE : 0);
    if (alone <= 0 || (!named && isChance(candidate, candidates))) continue;
    const salience =
      // C-value's own form for terms of one word too.
      Math.log2(words + 1) *
      Math.sqrt(Math.log2(1 + alone)) *
      (1 + 0.5 / (1 + first.start / EARLY)) *
      (named ? WORTH.name : 1) *
      (ofTitle.has(key) ? WORTH.title : 1) *
      (candidate.heading ? WORTH.heading : 1) *
      (candidate.pointedOut ? WORTH.pointedOut : 1);
    found.push({ key, form: formOf(candidate), count, salience, isName: named, first });
  }
  return found.sort((a, b) => b.salience - a.salience || (a.key < b.key ? -1 : 1)).slice(0, MAX_PHRASES);
}

const isName = ({ inside, capitals }: Candidate): boolean => inside > 0 && capitals / inside > 0.6;

/** As it is written most often; with a small letter where only the beginning of a sentence gave it another. */
function formOf(candidate: Candidate): string {
  const small = (form: string) => form.charAt(0).toLowerCase() + form.slice(1);
  const inSmall = small(commonest(candidate.forms));
  return !isName(candidate) && candidate.forms.has(inSmall) ? inSmall : commonest(candidate.forms);
}

/** Whether a term of three or four words is a shorter one that comes up twice as often, beside a word that came by. */
function isChance({ key, words, count }: Candidate, candidates: ReadonlyMap<string, Candidate>): boolean {
  if (words < 3) return false;
  const [first, last] = [key.indexOf(' '), key.lastIndexOf(' ')];
  return [key.slice(first + 1), key.slice(0, last)].some((part) => (candidates.get(part)?.count ?? 0) >= 2 * count);
}

/** For each term that also stands inside longer ones: how often the commonest of these comes up. */
function nestedIn(candidates: Iterable<Candidate>): Map<string, number> {
  const nested = new Map<string, number>();
  for (const { key, words, count } of candidates) {
    if (words === 1) continue;
    const stems = key.split(' ');
    const inner = new Set<string>();
    for (let length = 1; length < stems.length; length++)
      for (let from = 0; from + length <= stems.length; from++) inner.add(stems.slice(from, from + length).join(' '));
    for (const each of inner) nested.set(each, Math.max(count, nested.get(each) ?? 0));
  }
  return nested;
}

function commonest(forms: ReadonlyMap<string, number>): string {
  let [best, most] = ['', 0];
  for (const [form, times] of forms)
    if (times > most || (times === most && form.length < best.length)) [best, most] = [form, times];
  return best;
}
