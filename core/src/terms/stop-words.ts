import { ara, dan, deu, eng, fin, fra, ita, jpn, nld, nob, pol, por, rus, spa, swe, tur, zho } from 'stopword';

const LISTS: Readonly<Record<string, readonly string[]>> = {
  ar: ara,
  da: dan,
  de: deu,
  en: eng,
  es: spa,
  fi: fin,
  fr: fra,
  it: ita,
  ja: jpn,
  nb: nob,
  nl: nld,
  no: nob,
  pl: pol,
  pt: por,
  ru: rus,
  sv: swe,
  tr: tur,
  zh: zho,
};

/** Words that say how, when and how much, which the lists leave in; they would join texts that have nothing in common. */
const ENGLISH_TOO =
  'nobody everybody anybody everyone anyone anything everything eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty thirty forty fifty sixty seventy eighty ninety million i me my mine myself we our ours ourselves you your yours yourself he him his himself she her hers herself it its itself they them their theirs themselves who whom whose which what this that these those am is are was were be been being have has had do does did doing a an the and but if or because as of at by for with about against between into through during before after above below to from up down in out on off over then once here there when where why how all any both each few more most other some such no nor not only own same so too very can will just should would could shall don’t doesn’t didn’t isn’t wasn’t hear heard hears listen listened fall falls fell sit sat stood walk walked ran lay lies lie grow grew keep held set cut turned found feel sound came clearing looks looked looking also always another away back became become began begin begun come came could day days done even ever every far first four get give given go goes going gone good got great half however just keep kept know known last later least less let like little long look made make makes making many may might much must near never new next nothing now often old once one ones own part perhaps put quite rather really right said say says see seen set several side since small something soon still sure take taken takes than thing things think though three thus till together told took toward turn two upon us use used using way ways well went whether whole will within without word words would year years yet able across along already although around ask asked behind best better beyond big bring called cannot case cases certain clear close comes days different does down each early easy either else end enough exactly fact felt five full gave hand hard head high hold hour hours however hundred inside instead kind knew large late later leave left light line lines live lot main matter mean means middle minute minutes month months morning move name need needed needs nearly night none number open order others outside past people person place places plain point possible present quick quiet read real reason remain rest room round run same second seem seems short show simple single six slow somebody someone sometimes stand start stay stop story ten third thousand thought time times today top tried try twice under understand usual want wanted watch week weeks wide work working world write written wrong young';

const known = new Map<string, ReadonlySet<string>>();

/** The words of a language that every text has, in small letters; empty for a language without a list. */
export function stopWordsOf(language: string): ReadonlySet<string> {
  const found = known.get(language);
  if (found) return found;
  const words = new Set(LISTS[language] ?? []);
  if (language === 'en') for (const word of ENGLISH_TOO.split(' ')) words.add(word);
  known.set(language, words);
  return words;
}
