/** Scripts that (nearly) name a language; the order matters where one language mixes scripts. */
const SCRIPTS: readonly (readonly [language: string, letters: RegExp])[] = [
  ['ja', /[\p{Script=Hiragana}\p{Script=Katakana}]/gu],
  ['zh', /\p{Script=Han}/gu],
  ['ko', /\p{Script=Hangul}/gu],
  ['ar', /\p{Script=Arabic}/gu],
  ['he', /\p{Script=Hebrew}/gu],
  ['ru', /\p{Script=Cyrillic}/gu],
  ['el', /\p{Script=Greek}/gu],
  ['th', /\p{Script=Thai}/gu],
  ['hi', /\p{Script=Devanagari}/gu],
];

/** The commonest function words that do not serve several of these languages alike. */
const FUNCTION_WORDS: Readonly<Record<string, string>> = {
  en: 'the and of to is that was for with are this have from which not were been their would',
  de: 'der die und das ist nicht den von mit sich auf für eine dem werden auch wird als einer',
  fr: 'le les et des est une dans qui pour pas sur plus par avec sont cette ses aux du',
  es: 'el los las y que una por con para del se como más pero sus al lo fue esta',
  it: 'il che di della per una sono con non gli delle nel alla anche più questo dei lo',
  pt: 'o os que não uma com para dos mais como foi ao das pelo seu sua são também em',
  nl: 'het een van dat niet zijn voor met aan ook maar wordt deze naar worden door bij uit',
  sv: 'och att det som på är av för med den till inte har ett var från kan när',
  da: 'og at det som på er af for med den til ikke har et var fra kan når blev',
  pl: 'nie się na że jest do jak ale po co tak dla przez był które oraz tym',
  fi: 'ja on ei että se oli hän mutta kun niin ovat myös joka sen mukaan',
  tr: 've bir bu için ile olarak daha çok gibi olan kadar sonra en değil',
};

/** So much of a text is enough to tell its language by. */
const ENOUGH = 8000;
const WITH_FUNCTION_WORDS = Object.keys(FUNCTION_WORDS);
/** The languages of each function word, by their place in WITH_FUNCTION_WORDS. */
const LANGUAGES_OF = new Map<string, number[]>();
for (const [at, list] of Object.values(FUNCTION_WORDS).entries())
  for (const word of new Set(list.split(' '))) LANGUAGES_OF.set(word, [...(LANGUAGES_OF.get(word) ?? []), at]);
/** Letters beyond Latin: without any, no script has to be counted. */
const BEYOND_LATIN = /[\u0370-\uffff]{3}/;

/**
 * The language of a text: the declared one when the text agrees or is too short to tell, else what the text
 * itself shows by its script and its function words.
 *
 * @param declared BCP 47 tag as the page states it, or null
 * @returns a BCP 47 tag, or null when neither page nor text tells
 */
export function languageOf(text: string, declared: string | null): string | null {
  const seen = languageSeen(text.slice(0, ENOUGH));
  const tag = wellFormed(declared);
  if (seen === null) return tag;
  if (tag === null) return seen;
  const base = tag.toLowerCase().split('-')[0] ?? '';
  const cyrillicOrArabic = (seen === 'ru' && CYRILLIC.has(base)) || (seen === 'ar' && ARABIC.has(base));
  return base === seen || cyrillicOrArabic || !(seen in FUNCTION_WORDS || SCRIPTS.some(([l]) => l === seen))
    ? tag
    : seen;
}

const CYRILLIC = new Set(['uk', 'bg', 'sr', 'mk', 'be', 'kk', 'mn', 'ru']);
const ARABIC = new Set(['fa', 'ur', 'ps', 'ar', 'ckb', 'ug']);

function languageSeen(text: string): string | null {
  const words = text.toLowerCase().match(/\p{L}+/gu) ?? [];
  const letters = words.reduce((sum, { length }) => sum + length, 0);
  if (letters < 40) return null;
  for (const [language, pattern] of BEYOND_LATIN.test(text) ? SCRIPTS : []) {
    const share = (text.match(pattern)?.length ?? 0) / letters;
    // A Japanese text may be mostly Han, so a tenth of kana is enough to tell it from Chinese.
    if (share > (language === 'ja' ? 0.1 : 0.4)) return language;
  }
  if (words.length < 25) return null;
  const counts = WITH_FUNCTION_WORDS.map(() => 0);
  for (const word of words) for (const at of LANGUAGES_OF.get(word) ?? []) counts[at] = (counts[at] ?? 0) + 1;
  let best: string | null = null;
  let bestShare = 0.12;
  let second = 0;
  for (const [at, language] of WITH_FUNCTION_WORDS.entries()) {
    const share = (counts[at] ?? 0) / words.length;
    if (share > bestShare) {
      second = bestShare;
      bestShare = share;
      best = language;
    } else if (share > second) second = share;
  }
  return best !== null && bestShare > second * 1.15 ? best : null;
}

function wellFormed(tag: string | null): string | null {
  if (!tag) return null;
  try {
    return Intl.getCanonicalLocales(tag.trim().replace('_', '-'))[0] ?? null;
  } catch {
    // Pages state languages like "english": not a BCP 47 tag, so as good as none.
    return null;
  }
}

/** True for languages written from right to left. */
export function isRightToLeft(language: string | null): boolean {
  return /^(ar|he|fa|ur|ps|yi|dv|ckb|ug|syr)\b/i.test(language ?? '');
}
