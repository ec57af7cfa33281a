import { baseLanguage } from './base-language';
/** A part of a text by its offsets: the first character, and the one behind the last. */
export interface TextRange {
  start: number;
  end: number;
}

/**
 * Abbreviations behind which a sentence goes on, without their full stops, as they are written. Those that often
 * end a sentence (etc., Ltd., usw.) are left out: Intl.Segmenter already goes on where a small letter follows.
 */
const ABBREVIATIONS: Readonly<Record<string, string>> = {
  en: 'Mr Mrs Ms Mx Dr Prof Rev Fr Hon St Sgt Capt Cmdr Col Gen Lt Adm Gov Sen Rep Pres Messrs Mt Ft No Nos vs v Vol Ch Fig Figs Eq Sec pp ed eds approx ca cf e.g i.e viz al Jan Feb Mar Apr Jun Jul Aug Sep Sept Oct Nov Dec',
  de: 'Dr Prof Hr Fr Frl Dipl Ing St Nr Str Bd Abb Tab Kap Art Abs Hrsg bzw vgl ca ggf evtl sog z.B d.h u.a Jan Feb Mär Apr Jun Jul Aug Sept Sep Okt Nov Dez',
  fr: 'M MM Mme Mmes Mlle Dr Pr Me St Ste p pp vol chap art fig env av apr cf n° no p.ex ex janv févr avr juil sept oct nov déc',
  es: 'Sr Sra Srta Sres Dr Dra D Dña Ud Uds Lic Ing Prof St Sto Sta pág págs cap art fig núm vol aprox p.ej ej EE UU ene feb mar abr jun jul ago sept oct nov dic',
};

/** German writes ordinals with a full stop: „am 3. Mai“, „im 19. Jahrhundert“. */
const AFTER_GERMAN_ORDINAL =
  /^(?:Januar|Februar|März|April|Mai|Juni|Juli|August|September|Oktober|November|Dezember|Jahrhundert|Jahrtausend|Mal|Platz|Klasse|Stock|Auflage|Kapitel)\b/;

/** Words with which English sentences begin more often than names do. */
const ENGLISH_OPENER =
  /^(?:The|This|That|These|Those|There|They|Then|It|Its|He|She|We|You|In|On|At|By|For|From|With|After|Before|When|While|If|But|And|So|Yet|Just|Not|No|All|Some|Many|Most|However|What|Who|Why|How|As|An)\b/;

const knownAbbreviations = new Map<string, RegExp>();
const segmenters = new Map<string, Intl.Segmenter>();

/**
 * The sentences of one block of text, by Unicode's rules (UAX #29, as Intl.Segmenter has them), joined again where
 * a full stop belonged to an abbreviation, an initial or an ordinal. A line feed ends a sentence.
 *
 * @param language BCP 47 tag; null is taken for English
 * @returns ranges without the white space around them, ascending; together they hold all that is not white space
 */
export function sentences(text: string, language: string | null): TextRange[] {
  const base = baseLanguage(language);
  const found: TextRange[] = [];
  let goesOn = false;
  for (const { segment, index } of segmenterFor(base).segment(text)) {
    const start = index + (segment.length - segment.trimStart().length);
    const end = index + segment.trimEnd().length;
    if (start >= end) continue;
    const last = found.at(-1);
    if (last && goesOn && joinsOn(text.slice(last.start, last.end), text.slice(start, end), base)) last.end = end;
    else found.push({ start, end });
    goesOn = !segment.includes('\n');
  }
  return found;
}

function joinsOn(before: string, after: string, language: string): boolean {
  // Speech goes on behind its quotation mark: “Is it safe?” she asked.
  if (/[?!…]["”’»]$/u.test(before)) return /^\p{Ll}/u.test(after);
  if (!before.endsWith('.')) return false;
  if (abbreviationsOf(language).test(before)) return true;
  // An initial, or half of an abbreviation: "J. R. Haldane", „z. B.“. The English pronoun is one letter too.
  const letter = /(?:^|[\s(“"‘'.-])([\p{Lu}\p{Ll}])\.$/u.exec(before)?.[1];
  // Letter words end a sentence where one plainly begins behind them: "…of the F.B.I. The …".
  if (letter !== undefined && language === 'en' && /\p{L}\.\p{L}\.$/u.test(before) && ENGLISH_OPENER.test(after))
    return false;
  if (letter !== undefined) return language !== 'en' || letter !== 'I' || !/\p{Ll}\s+I\.$/u.test(before);
  return language === 'de' && /(?:^|\s)\d{1,2}\.$/.test(before) && AFTER_GERMAN_ORDINAL.test(after);
}

function abbreviationsOf(language: string): RegExp {
  const known = knownAbbreviations.get(language);
  if (known) return known;
  const words = (ABBREVIATIONS[language] ?? '')
    .split(' ')
    .filter(Boolean)
    .map((word) => word.replaceAll('.', '\\.'));
  const pattern = new RegExp(`(?:^|[\\s(“"‘'\\[])(?:${words.join('|') || '(?!)'})\\.$`, 'u');
  knownAbbreviations.set(language, pattern);
  return pattern;
}

function segmenterFor(base: string): Intl.Segmenter {
  const known = segmenters.get(base);
  if (known) return known;
  let locale = 'en';
  try {
    locale = Intl.Segmenter.supportedLocalesOf(base)[0] ?? 'en';
  } catch {
    // Not a language tag at all: Unicode's default rules, which English has.
  }
  const made = new Intl.Segmenter(locale, { granularity: 'sentence' });
  segmenters.set(base, made);
  return made;
}
