/**
 * Small words that turn what a sentence says into something else. From memory; the lists are short on purpose: they are
 * there to keep a statement from being taken for its contrary, not to understand it.
 */

const DENIALS: Readonly<Record<string, string>> = {
  en: 'no not never none nobody nothing nowhere neither nor cannot without hardly barely unless except',
  de: 'nicht kein keine keinen keinem keiner keines nie niemals niemand nichts weder ohne kaum außer',
  fr: 'ne n pas jamais aucun aucune rien personne ni sans sauf',
  es: 'no nunca jamás ningún ninguno ninguna nada nadie ni sin salvo',
};

const OPPOSITES: Readonly<Record<string, string>> = {
  en:
    'more-less more-fewer most-least higher-lower high-low rise-fall rises-falls rose-fell risen-fallen rising-falling ' +
    'increase-decrease increased-decreased increases-decreases increasing-decreasing gain-lose gained-lost win-lose ' +
    'won-lost wins-loses before-after first-last early-late earlier-later earliest-latest open-closed opened-closed ' +
    'opens-closes open-close opening-closing all-none always-never always-seldom often-seldom often-rarely begin-end ' +
    'began-ended begins-ends start-stop started-stopped starts-stops accept-reject accepted-rejected for-against ' +
    'accepted-refused accept-refuse agreed-refused allowed-forbidden allow-forbid allows-forbids up-down inside-outside ' +
    'above-below over-under north-south east-west northern-southern eastern-western northerly-southerly left-right ' +
    'large-small larger-smaller largest-smallest big-small bigger-smaller long-short longer-shorter longest-shortest ' +
    'old-new older-newer older-younger oldest-youngest near-far nearer-farther quick-slow quicker-slower faster-slower ' +
    'fast-slow best-worst better-worse good-bad heavy-light heavier-lighter hot-cold warm-cold warmer-colder dry-wet ' +
    'deep-shallow deeper-shallower strong-weak stronger-weaker wide-narrow wider-narrower rich-poor cheap-dear ' +
    'cheaper-dearer easy-hard easier-harder same-different true-false safe-unsafe likely-unlikely possible-impossible ' +
    'with-without came-went come-go arrived-left bought-sold buy-sell lent-borrowed found-lost full-empty public-private ' +
    'morning-evening day-night summer-winter spring-autumn spring-neap ebb-flood today-tomorrow today-yesterday ' +
    'tomorrow-yesterday yes-no man-woman men-women internal-external input-output same-different general-special ' +
    'general-specific minimum-maximum majority-minority import-export profit-loss success-failure present-absent ' +
    'supply-demand asked-answered cause-effect parent-child teacher-pupil hardware-software fixed-variable',
  de:
    'mehr-weniger höher-niedriger hoch-niedrig steigt-fällt stieg-fiel gestiegen-gefallen vor-nach erste-letzte ' +
    'früher-später früh-spät offen-geschlossen geöffnet-geschlossen alle-keine immer-nie oft-selten beginnt-endet ' +
    'begann-endete für-gegen mit-ohne groß-klein größer-kleiner lang-kurz länger-kürzer alt-neu älter-jünger ' +
    'schnell-langsam schneller-langsamer besser-schlechter über-unter nördlich-südlich östlich-westlich links-rechts',
  fr:
    'plus-moins haut-bas monte-baisse avant-après premier-dernier première-dernière tôt-tard ouvert-fermé ouverte-fermée ' +
    'tous-aucun toujours-jamais souvent-rarement commence-finit pour-contre avec-sans grand-petit grande-petite ' +
    'long-court longue-courte vieux-nouveau rapide-lent meilleur-pire nord-sud est-ouest gauche-droite',
  es:
    'más-menos alto-bajo sube-baja antes-después primero-último primera-última pronto-tarde abierto-cerrado ' +
    'abierta-cerrada todos-ninguno siempre-nunca empieza-termina con-sin grande-pequeño largo-corto viejo-nuevo ' +
    'rápido-lento mejor-peor norte-sur este-oeste izquierda-derecha',
};

/** From zero on. */
const NUMBERS: Readonly<Record<string, string>> = {
  en: 'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty',
  de: 'null eins zwei drei vier fünf sechs sieben acht neun zehn elf zwölf dreizehn vierzehn fünfzehn sechzehn siebzehn achtzehn neunzehn zwanzig',
  fr: 'zéro un deux trois quatre cinq six sept huit neuf dix onze douze treize quatorze quinze seize dix-sept dix-huit dix-neuf vingt',
  es: 'cero uno dos tres cuatro cinco seis siete ocho nueve diez once doce trece catorce quince dieciséis diecisiete dieciocho diecinueve veinte',
};
const LARGE: Readonly<Record<string, string>> = {
  en: 'thirty-30 forty-40 fifty-50 sixty-60 seventy-70 eighty-80 ninety-90 hundred-100 thousand-1000 million-1000000 dozen-12 half-½ third-⅓ quarter-¼ twice-2× once-1×',
  de: 'dreißig-30 vierzig-40 fünfzig-50 sechzig-60 siebzig-70 achtzig-80 neunzig-90 hundert-100 tausend-1000 dutzend-12 halb-½ drittel-⅓ viertel-¼ zweimal-2×',
  fr: 'trente-30 quarante-40 cinquante-50 soixante-60 cent-100 mille-1000 douzaine-12 moitié-½ tiers-⅓ quart-¼',
  es: 'treinta-30 cuarenta-40 cincuenta-50 sesenta-60 setenta-70 ochenta-80 noventa-90 cien-100 mil-1000 docena-12 mitad-½ tercio-⅓ cuarto-¼',
};

const list = (words: string | undefined): string[] => words?.split(' ') ?? [];
const denials = new Map<string, ReadonlySet<string>>();
const opposites = new Map<string, ReadonlyMap<string, string>>();
const numbers = new Map<string, ReadonlyMap<string, string>>();

function once<Made>(made: Map<string, Made>, language: string, make: () => Made): Made {
  const known = made.get(language);
  if (known !== undefined) return known;
  const value = make();
  made.set(language, value);
  return value;
}

/** Whether a word denies what stands with it. @param word in small letters, with its apostrophe */
export function isDenial(word: string, language: string): boolean {
  if (language === 'en' && /n['’]t$/.test(word)) return true;
  return once(denials, language, () => new Set(list(DENIALS[language]))).has(word);
}

/** The words of a language that have an opposite here, both ways. Of several the last one counts. */
export function oppositesOf(language: string): ReadonlyMap<string, string> {
  return once(opposites, language, () => {
    const pairs = list(OPPOSITES[language]).map((pair) => pair.split('-') as [string, string]);
    return new Map(pairs.flatMap(([one, other]) => [[one, other] as const, [other, one] as const]));
  });
}

/**
 * A number in one spelling for all of its spellings; null for a word that is none.
 *
 * @param word in small letters
 * @param from the sentence from this word on, where a decimal part follows its separator
 */
export function numberOf(word: string, from: string, language: string): string | null {
  const digits = /^\d+(?:[.,:]\d+)*/.exec(from)?.[0];
  if (digits !== undefined && /^\d/.test(word)) return digits.replace(/,(?=\d{3}\b)/g, '').replace(',', '.');
  const named = once(numbers, language, () => {
    const small = list(NUMBERS[language]).map((name, at) => [name, String(at)] as const);
    const large = list(LARGE[language]).map((pair) => pair.split('-') as [string, string]);
    return new Map<string, string>([...small, ...large]);
  });
  return named.get(word) ?? null;
}

const calendars = new Map<string, ReadonlySet<string>>();

/** Whether a word is the name of a month or of a day of the week: another one is another time. */
export function isOfCalendar(word: string, language: string): boolean {
  return once(calendars, language, () => {
    const format = (options: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat(language, { timeZone: 'UTC', ...options });
    // January 2024 began on a Monday.
    const days = Array.from({ length: 7 }, (_, day) => format({ weekday: 'long' }).format(Date.UTC(2024, 0, 1 + day)));
    const months = Array.from({ length: 12 }, (_, month) => format({ month: 'long' }).format(Date.UTC(2024, month, 1)));
    return new Set([...days, ...months].map((name) => name.toLowerCase()));
  }).has(word);
}
