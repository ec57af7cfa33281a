import type { Pronunciation } from '../listening';
import { baseLanguage, type TextRange } from '../text';
import { type Claim, claimFormulas, claimMarks, claimMixtures } from './formulas';
import { claimHeteronyms } from './heteronyms';
import { spokenLanguage } from './languages';
import type { CountWords, SpokenLanguage } from './languages/language';
import { isRoman, romanValue, RULERS } from './roman';

/** A part of what is said, and the part of the text it stands for. */
interface Piece extends TextRange {
  /** Where it begins in what is said. */
  said: number;
  /** True when it is said as it is written, so that each place in the one is a place in the other. */
  asWritten: boolean;
}

/** What a voice is given for a text, with the way back. */
export interface Said {
  text: string;
  /** In order; what stands between two belongs to neither. */
  pieces: readonly Piece[];
}

interface Replacement extends TextRange {
  said: string;
}

/** Words of capitals that are said as a word, not letter by letter; common practice. */
const SAID_AS_WORDS = new Set(
  'NASA NATO UNESCO UNICEF AIDS RAM ROM SIM PIN OPEC FIFA UEFA ONU UNO SIDA OVNI ASEAN LASER RADAR SONAR OK GIF JPEG'.split(
    ' ',
  ),
);
/** Most sentences have none of these. */
const HETERONYM = /\b(?:lead|wind|live|close|minute|tear|bow|wound|read)\b/i;
const MAX_DIGITS = 15;
const EDGE = '(?<![\\p{L}\\p{N}])';
const NO_MORE = '(?![\\p{L}\\p{N}])';
const SPACE = '[ \\u00a0\\u202f]';
const TOP_DOMAINS = 'com org net edu gov int info io co uk eu de fr es at ch be nl it eu ie us ca au nz example'
  .split(' ')
  .join('|');

/**
 * A sentence as a voice should say it: numbers, money, units, dates, times, ordinals, Roman numerals, abbreviations, addresses and
 * signs in words. Languages without a table of their own are said as they are written, but for addresses.
 *
 * @param language BCP 47 tag; null is taken for English
 * @param own the reader's own list; it comes before all rules
 */
export function say(text: string, language: string | null, own: readonly Pronunciation[] = []): Said {
  const found: Replacement[] = [];
  const claim: Claim = (pattern, saying) => {
    for (const match of text.matchAll(pattern)) {
      const start = match.index;
      const end = start + match[0].length;
      if (end === start || found.some((other) => start < other.end && other.start < end)) continue;
      const said = saying(match);
      if (said !== null) found.push({ start, end, said });
    }
  };
  for (const { written, said } of own)
    if (written !== '')
      claim(pattern(`${EDGE}${escaped(written)}${NO_MORE}`, /\p{Lu}/u.test(written) ? 'gu' : 'giu'), () => said);
  const table = spokenLanguage(language);
  // Most sentences have none of these, and the rules for them are many.
  const hasFigure = /[\d½¼¾⅓⅔⅛]/.test(text);
  if (/[@.:]\S/.test(text)) claimAddresses(claim, table);
  if (table) {
    if (hasFigure) {
      claimReferences(claim);
      claimMixtures(claim, table);
      claimDatesAndTimes(claim, table);
      claimAmounts(claim, table);
    }
    if (/[*†‡\u00ad⁰¹²³⁴-⁹]|-\s*\n/u.test(text)) claimMarks(claim);
    if (hasFigure || /[₀-₉⁰¹²³⁴-⁹]/u.test(text)) claimFormulas(claim, table);
    if (hasFigure || /(?<!\p{L})[IVXLC]+(?:e|ème|ᵉ|th|st|nd|rd)?(?!\p{L})/iu.test(text)) claimNumerals(claim, table);
    if (baseLanguage(language) === 'en' && HETERONYM.test(text)) claimHeteronyms(claim);
    claimAbbreviations(claim, table, text);
    claimCapitals(claim, text);
    if (hasFigure) claimNumbers(claim, table);
    claimSigns(claim, table, text);
  }
  return joined(text, found);
}

/** Marks of sources and footnotes between brackets interrupt: nobody says them. */
function claimReferences(claim: Claim): void {
  claim(/ ?\[\d{1,3}\]/g, () => '');
}

/** Of an address, only the host is of use to an ear. */
function claimAddresses(claim: Claim, table: SpokenLanguage | undefined): void {
  const words = table ?? { at: 'at', dot: 'dot', dash: 'dash', underscore: 'underscore' };
  const spelled = (address: string) =>
    address.replaceAll('.', ` ${words.dot} `).replaceAll('_', ` ${words.underscore} `).replaceAll('@', ` ${words.at} `);
  claim(/[\p{L}\p{N}._%+-]+@[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+/gu, ([address]) =>
    spelled(address.replaceAll('-', ` ${words.dash} `)),
  );
  const host = pattern(
    `${EDGE}(?:https?:\\/\\/(?:www\\.)?|www\\.)([\\p{L}\\p{N}-]+(?:\\.[\\p{L}\\p{N}-]+)*)(?::\\d+)?(?:\\/[^\\s)\\]»”]*[^\\s)\\]»”.,;:!?])?\\/?`,
    'giu',
  );
  claim(host, ([, name = '']) => spelled(name));
  claim(
    pattern(`${EDGE}((?:[\\p{L}\\p{N}-]+\\.)+(?:${TOP_DOMAINS}))(?:\\/[\\w\\/.#?=&%-]*[\\w\\/])?${NO_MORE}`, 'gu'),
    ([, name = '']) => spelled(name),
  );
}

function claimDatesAndTimes(claim: Claim, table: SpokenLanguage): void {
  const dated = (day: number, month: number, year: string | undefined) =>
    day >= 1 && day <= 31 && month >= 1 && month <= 12
      ? table.date(day, month, year === undefined ? null : Number(year))
      : null;
  claim(/(?<![\d-])(\d{4})-(\d{2})-(\d{2})(?![\d-])/g, ([, year, month, day]) =>
    dated(Number(day), Number(month), year),
  );
  claim(/(?<![\d./])(\d{1,2})([./])(\d{1,2})\2(\d{4})(?![\d/])/g, ([, first, , second, year]) => {
    const monthFirst = Number(second) > 12 || (table.dateOrder === 'month' && Number(first) <= 12);
    return monthFirst ? dated(Number(second), Number(first), year) : dated(Number(first), Number(second), year);
  });
  const short = table.decimalSign === '.' ? table.months.map((name) => name.slice(0, 3)) : [];
  const names = [...table.months, ...short].join('|');
  const monthOf = (name: string) => table.months.findIndex((month) => month.startsWith(name)) + 1;
  claim(
    pattern(
      `${EDGE}(?:the )?(\\d{1,2})(?:st|nd|rd|th|er|\\.|[°º])?${SPACE}(?:of |de )?(${names})(?:,?${SPACE}(?:de )?(\\d{4}))?${NO_MORE}`,
      'gu',
    ),
    ({ 0: written, 1: day, 2: month = '', 3: year, index, input }) => {
      const said = dated(Number(day), monthOf(month), year);
      if (table.ordinalSign.source.includes('Januar')) {
        // German ordinals bend by what stands before them.
        const before = wordsBefore(input, index);
        return said && written.includes('.') ? said.replace(/^\S+/, table.ordinal(Number(day), before)) : null;
      }
      return said;
    },
  );
  claim(
    pattern(
      `${EDGE}(${names})${SPACE}(\\d{1,2})(?:st|nd|rd|th)?(?:,${SPACE}(\\d{4}))?(?![\\p{L}\\p{N}]|[.,:]\\d)`,
      'gu',
    ),
    ([, month = '', day, year]) => dated(Number(day), monthOf(month), year),
  );
  claim(
    /(?<![\d:.])([01]?\d|2[0-3]) ?(?:[:]|h ?)([0-5]\d)(?: ?(Uhr|[ap]\.?m\.?(?!\p{L})))?(?![\d:])/gu,
    ([written, hour, minute, half]) => {
      const apart = written.includes(':') ? '' : 'h';
      if (apart === 'h' && table.decimalSign === '.') return null;
      if (half && half !== 'Uhr')
        return `${table.cardinal(Number(hour))}${Number(minute) === 0 ? '' : ` ${table.time(Number(hour), Number(minute)).split(' ').slice(1).join(' ')}`} ${half[0]?.toUpperCase() ?? ''} M`;
      return table.time(Number(hour), Number(minute));
    },
  );
}

/** Money, measures, parts, and ranges of them. */
function claimAmounts(claim: Claim, table: SpokenLanguage): void {
  // Before the seconds: 1980s.
  const { decade } = table;
  if (decade) claim(/(?<![\p{L}\p{N}])(1[1-9]\d0|20\d0)(?:s|er)\b/gu, ([, year]) => decade(Number(year)));
  const number = numberPattern(table);
  const signs = alternatives(Object.keys(table.money));
  const multipliers = alternatives(Object.keys(table.multipliers));
  const money = (sign: string, written: string, multiplier: string | undefined) => {
    const words = table.money[sign];
    if (!words) return null;
    if (multiplier) return `${numberSaid(table, written)} ${manyOf(table, multiplier, words.whole[1])}`;
    const { whole, decimals } = readNumber(table, written);
    if (words.hundredth && decimals.length === 2) {
      const cents = Number(decimals);
      const wholeSaid = `${table.counting(whole, words.whole[0])} ${oneOrMany(words.whole, whole)}`;
      if (cents === 0) return wholeSaid;
      const centsSaid = `${table.counting(cents, words.hundredth[0])} ${oneOrMany(words.hundredth, cents)}`;
      return whole === 0n ? centsSaid : `${wholeSaid} ${table.and} ${centsSaid}`;
    }
    return counted(table, written, words.whole);
  };
  claim(
    pattern(
      `(?<![\\p{L}\\p{N}$£€¥])(${signs})${SPACE}?(${number})(?:${SPACE}?(${multipliers})${NO_MORE})?(?![\\d])`,
      'gu',
    ),
    ([, sign = '', written = '', multiplier]) => money(sign, written, multiplier),
  );
  claim(
    pattern(
      `(?<![\\p{L}\\p{N}.,])(${number})(?:${SPACE}?(${multipliers}))?${SPACE}?(?:de )?(${signs})${NO_MORE}`,
      'gu',
    ),
    ([, written = '', multiplier, sign = '']) => money(sign, written, multiplier),
  );
  claim(
    pattern(`(?<![\\p{L}\\p{N}.,])(${number})${SPACE}?(${alternatives(SHORT_MULTIPLIERS)})(?=${SPACE}(.))`, 'gu'),
    ([, written = '', multiplier = '']) => {
      const word = table.multipliers[multiplier];
      return word === undefined ? null : `${numberSaid(table, written)} ${word}`;
    },
  );
  const units = alternatives(Object.keys(table.units));
  const minus = '(?<=^|[\\s(])([−-])?';
  claim(
    pattern(`${minus}(?:(${number})${SPACE}?[–-]${SPACE}?)?(${number})${SPACE}?(${units})(?![\\p{L}\\p{N}²³/])`, 'gu'),
    ([, sign, from, written = '', unit = '']) => {
      const words = table.units[unit];
      if (!words) return null;
      const start = `${sign ? `${table.minus} ` : ''}${from ? `${numberSaid(table, from)} ${table.to} ` : ''}`;
      return start + counted(table, written, words);
    },
  );
  const fractions = alternatives(Object.keys(table.fractions));
  claim(
    pattern(`(?<![\\p{L}\\p{N}/.,])(?:(\\d+)${SPACE}?)?(${fractions})(?![\\p{L}\\p{N}/])`, 'gu'),
    ([, whole, part = '']) =>
      whole
        ? `${table.cardinal(Number(whole))} ${table.and} ${table.fractions[part] ?? ''}`
        : (table.fractions[part] ?? null),
  );
}

/** Multipliers that are written short and stand for nothing else, so that no money has to be near. */
const SHORT_MULTIPLIERS = ['bn', 'tn', 'Mio.', 'Mrd.', 'mln', 'mld'];

/** So many of something: French has a word between the two. */
function manyOf(table: SpokenLanguage, multiplier: string, noun: string): string {
  const many = table.multipliers[multiplier] ?? multiplier;
  return table.manyOf ? table.manyOf(many, noun) : `${many} ${noun}`;
}

/** Ordinals, Roman numerals, decades, years. */
function claimNumerals(claim: Claim, table: SpokenLanguage): void {
  claim(table.ordinalSign, ({ 0: match, index, input }) =>
    table.ordinal(Number(match.replace(/\D/g, '')), wordsBefore(input, index), match),
  );
  if (table.century)
    claim(table.century, ({ 1: numeral = '', index, input }) =>
      isRoman(numeral) ? table.ordinal(romanValue(numeral), wordsBefore(input, index)) : null,
    );
  claim(
    pattern(`(?<=${EDGE}(?:${table.counted.join('|')})${SPACE})([IVXLCivxl]+)(?![\\p{L}\\p{N}])`, 'giu'),
    ([, numeral = '']) => (isRoman(numeral) ? table.cardinal(romanValue(numeral)) : null),
  );
  claim(
    pattern(`(?<=${EDGE}(?:${RULERS.join('|')})${SPACE})([IVX]+)(\\.(?=${SPACE}\\p{Ll}))?(?![\\p{L}\\p{N}])`, 'gu'),
    ([, numeral = '']) => (isRoman(numeral) ? table.regnal(romanValue(numeral)) : null),
  );
  // Between two years; the number's own pattern would take them for counts.
  claim(
    /(?<![\p{L}\p{N}.,/])(1[1-9]\d\d|20\d\d) ?[–-] ?(1[1-9]\d\d|20\d\d)(?![\p{L}\p{N}/-]|[.,]\d)/gu,
    ([, from, to]) => `${table.year(Number(from))} ${table.to} ${table.year(Number(to))}`,
  );
  claim(/(?<![\p{L}\p{N}.,/+-])(1[1-9]\d\d|20\d\d)(?![\p{L}\p{N}/-]|[.,]\d)/gu, ([, year]) => table.year(Number(year)));
}

function claimAbbreviations(claim: Claim, table: SpokenLanguage, text: string): void {
  const endOfText = text.trimEnd().length;
  for (const key of longestFirst(table.abbreviations)) {
    const stem = key.replace(/[ #]$/, '');
    // A stem with a space in it may be written with one that does not break.
    if (!text.includes(stem.split(' ')[0] ?? stem)) continue;
    const following = key.endsWith('#')
      ? `(?=${SPACE}?(?:\\d|[IVX]{2,}${NO_MORE}))`
      : key.endsWith(' ')
        ? `(?=${SPACE}[\\p{Lu}\\d])`
        : NO_MORE;
    const said = table.abbreviations[key] ?? '';
    claim(pattern(`${EDGE}${escaped(stem).replaceAll(' ', SPACE)}${following}`, 'gu'), ({ 0: match, index }) =>
      // The full stop ended the sentence as well.
      match.endsWith('.') && index + match.length >= endOfText ? `${said}.` : said,
    );
  }
}

const orders = new WeakMap<object, readonly string[]>();

function longestFirst(abbreviations: SpokenLanguage['abbreviations']): readonly string[] {
  const order = orders.get(abbreviations) ?? Object.keys(abbreviations).sort((a, b) => b.length - a.length);
  orders.set(abbreviations, order);
  return order;
}

/** Letter words are spelled; a line all in capitals is shouting, and is said as a line. */
function claimCapitals(claim: Claim, text: string): void {
  const letters = text.match(/\p{L}/gu)?.length ?? 0;
  const capitals = text.match(/\p{Lu}/gu)?.length ?? 0;
  if (letters > 8 && capitals > letters * 0.6) {
    claim(/\p{Lu}[\p{Lu}’']+/gu, ([word]) => word.toLowerCase());
    return;
  }
  claim(/(?<![\p{L}\p{N}.])(?:\p{Lu}\.){2,}(?!\p{L})/gu, ({ 0: word, index, input }) => {
    const spelled = Array.from(word.replaceAll('.', '')).join(' ');
    return index + word.length >= input.trimEnd().length ? `${spelled}.` : spelled;
  });
  claim(/(?<![\p{L}\p{N}])(\p{Lu}{2,5})(s?)(?![\p{L}\p{N}])/gu, ([, word = '', plural = '']) => {
    const isWord = SAID_AS_WORDS.has(word) || (word.length > 3 && /[AEIOUY]/.test(word));
    // "II" and the like stand for numbers, of what nobody can tell here.
    return isWord || /^[IVX]+$/.test(word) ? null : Array.from(word).join(' ') + plural;
  });
}

function claimNumbers(claim: Claim, table: SpokenLanguage): void {
  claim(/(?<![\p{L}\p{N}])\+\d{1,3}(?:[ ().-]{0,2}\d{2,4}){2,5}(?!\d)/gu, ([number]) =>
    [...number.matchAll(/\+|\d+/g)]
      .map(([group]) => (group === '+' ? (table.signs['+'] ?? '+') : digitByDigit(table, group)))
      .join(', ')
      .replace(', ', ' '),
  );
  claim(/(?<![\p{L}\p{N}.])\d+(?:\.\d+){2,}(?![\p{L}\p{N}])/gu, ([version]) =>
    // Where a full stop stands between thousands, it is a number.
    table.decimalSign === ',' && /^\d{1,3}(?:\.\d{3})+$/.test(version)
      ? null
      : version
          .split('.')
          .map((part) => table.cardinal(BigInt(part)))
          .join(` ${table.dot} `),
  );
  const number = numberPattern(table);
  const multipliers = alternatives(Object.keys(table.multipliers).filter((word) => word.length > 2));
  claim(
    pattern(
      `(?<=^|[\\s(\\[“"„«])([−-])?(${number})(?:${SPACE}?–${SPACE}?(${number}))?(?=${SPACE}?(?:${multipliers})|[^\\p{L}\\p{N}]|$)`,
      'gu',
    ),
    ({ 0: { length }, 1: sign, 2: from = '', 3: to, index, input }) => {
      const said = (written: string) => numberBefore(table, written, input.slice(index + length));
      return `${sign ? `${table.minus} ` : ''}${said(from)}${to ? ` ${table.to} ${said(to)}` : ''}`;
    },
  );
  claim(pattern(`(?<![\\p{L}\\p{N}])(${number})(?![\\p{L}\\p{N}])`, 'gu'), ([, written = '']) =>
    numberSaid(table, written),
  );
}

/** A number as it is said before what follows it. A year bends by nothing. */
function numberBefore(table: SpokenLanguage, written: string, behind: string): string {
  const said = numberSaid(table, written);
  const next = /^[ \u00a0\u202f](\p{Ll}{3,})/u.exec(behind)?.[1];
  const isYear = /^(?:1\d|20)\d\d$/.test(written);
  return table.agreeing && next !== undefined && !isYear && !written.includes(table.decimalSign)
    ? table.agreeing(said, next)
    : said;
}

function claimSigns(claim: Claim, table: SpokenLanguage, text: string): void {
  if (!/[^\p{L}\p{N}\p{P}\s]|[&§#]/u.test(text)) return;
  claim(
    pattern(
      `(?<=^|\\s|\\d)(${alternatives(Object.keys(table.signs).filter((sign) => sign !== '#'))})(?=\\s|\\d)`,
      'gu',
    ),
    ({ 1: sign = '', index, input }) => spaced(table.signs[sign] ?? sign, index, sign.length, input),
  );
  const { '#': hash } = table.signs;
  if (hash) claim(/(?<![\p{L}\p{N}])#(?=\d)/gu, () => `${hash} `);
}

/** A word in place of a sign that stood between two numbers without a space. */
function spaced(word: string, index: number, length: number, input: string): string {
  const before = /\s/.test(input[index - 1] ?? ' ') ? '' : ' ';
  const behind = /\s/.test(input[index + length] ?? ' ') ? '' : ' ';
  return before + word + behind;
}

/** A number as the language writes it, as the source of a pattern. */
function numberPattern({ decimalSign }: SpokenLanguage): string {
  const group = decimalSign === '.' ? "[,\\u202f\\u00a0 ’']" : "[.\\u202f\\u00a0 ’']";
  const decimal = decimalSign === '.' ? '\\.' : ',';
  return `(?<!\\d)\\d{1,3}(?:${group}\\d{3})+(?!\\d)(?:${decimal}\\d+)?|\\d+(?:${decimal}\\d+)?`;
}

function readNumber(
  { decimalSign }: SpokenLanguage,
  written: string,
): { whole: bigint; decimals: string; digits: string } {
  const [digits = '', decimals = ''] = written.split(decimalSign);
  const plain = digits.replace(/\D/g, '');
  return { whole: BigInt(plain || '0'), decimals, digits: plain };
}

function numberSaid(table: SpokenLanguage, written: string): string {
  const { whole, decimals, digits } = readNumber(table, written);
  if (digits.length > MAX_DIGITS || (digits.length > 1 && digits.startsWith('0'))) return digitByDigit(table, digits);
  const said = table.cardinal(whole);
  if (decimals === '') return said;
  const oneByOne = table.decimalsOneByOne || decimals.startsWith('0') || decimals.length > 3;
  return `${said} ${table.point} ${oneByOne ? digitByDigit(table, decimals) : table.cardinal(Number(decimals))}`;
}

function counted(table: SpokenLanguage, written: string, words: CountWords): string {
  const { whole, decimals } = readNumber(table, written);
  return decimals === ''
    ? `${table.counting(whole, words[0])} ${oneOrMany(words, whole)}`.replace('’ ', '’')
    : `${numberSaid(table, written)} ${words[1]}`;
}

const oneOrMany = (words: CountWords, count: number | bigint): string => words[BigInt(count) === 1n ? 0 : 1];

const digitByDigit = (table: SpokenLanguage, digits: string): string =>
  Array.from(digits, (digit) => table.cardinal(Number(digit))).join(' ');

/** The two words before a place, or the one that there is. */
const wordsBefore = (text: string, index: number): string =>
  /((?:\p{L}+[ \u00a0])?\p{L}+)[ \u00a0]$/u.exec(text.slice(Math.max(0, index - 24), index))?.[1] ?? '';

const patterns = new Map<string, RegExp>();

/** A pattern, compiled once: a long text is asked for the same few hundred thousands of times. */
function pattern(source: string, flags: string): RegExp {
  const key = `${flags} ${source}`;
  const known = patterns.get(key) ?? new RegExp(source, flags);
  patterns.set(key, known);
  return known;
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');

/** The longest first: a pattern takes the first that fits. */
const alternatives = (written: readonly string[]): string =>
  [...written]
    .sort((a, b) => b.length - a.length)
    .map(escaped)
    .join('|');

function joined(text: string, found: Replacement[]): Said {
  const pieces: Piece[] = [];
  let said = '';
  let at = 0;
  const asWritten = (to: number) => {
    if (to > at) pieces.push({ said: said.length, start: at, end: to, asWritten: true });
    // A tab stands between the cells of a row, a line feed where a line was broken: both are heard as a comma is.
    said += text.slice(at, to).replace(/\t/g, ',').replace(/\n/g, ' ');
    at = to;
  };
  for (const replacement of found.sort((a, b) => a.start - b.start)) {
    asWritten(replacement.start);
    if (replacement.said !== '')
      pieces.push({ said: said.length, start: replacement.start, end: replacement.end, asWritten: false });
    said += replacement.said;
    at = replacement.end;
  }
  asWritten(text.length);
  return { text: said, pieces };
}

/**
 * The word of the text that is being said.
 *
 * @param offset a place in what is said
 * @returns its range in the text that `say` was given
 */
export function wordAt({ pieces }: Pick<Said, 'pieces'>, offset: number, text: string): TextRange | null {
  const piece = pieces.findLast(({ said }) => said <= offset);
  if (!piece) return null;
  if (!piece.asWritten) return { start: piece.start, end: piece.end };
  const start = Math.min(piece.end - 1, piece.start + offset - piece.said);
  const length = /^\S+/u.exec(text.slice(start, piece.end))?.[0].length ?? 1;
  return { start, end: start + length };
}
