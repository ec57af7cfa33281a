import { toCardinal, toOrdinal } from 'n2words/de-DE';
import type { SpokenLanguage } from './language';

const MONTHS = 'Januar Februar März April Mai Juni Juli August September Oktober November Dezember'.split(' ');
/** Behind these an ordinal takes an n: „am dritten Mai“. */
// “der” is the nominative of one noun and the dative of another: only what stands before it can tell.
const DATIVE =
  /(?:^| )(?:am|vom|zum|im|dem|den|beim|ab|bis|des|seit|nach|vor|(?:in|an|auf|aus|bei|mit|nach|seit|von|zu|vor|hinter|über|unter|neben|zwischen) der)$/i;

const cardinal = (value: number | bigint) =>
  toCardinal(value)
    .replace(/^einhundert/, 'hundert')
    .replace(/^eintausend/, 'tausend');
const year = (value: number): string => {
  const [century, rest] = [Math.floor(value / 100), value % 100];
  if (value < 1100 || value > 1999) return cardinal(value);
  return `${cardinal(century)}hundert${rest === 0 ? '' : cardinal(rest)}`;
};
const ordinal = (value: number, before: string) => `${toOrdinal(value)}${DATIVE.test(before) ? 'n' : ''}`;

/** German basics. The words are common practice. */
export const german: SpokenLanguage = {
  cardinal,
  counting: (value, noun) =>
    cardinal(value).replace(/eins$/, /(?:Tonne|Sekunde|Minute|[Ss]tunde|Spalte|Zeile)$/.test(noun) ? 'eine' : 'ein'),
  ordinal,
  year,
  decimalSign: ',',
  point: 'Komma',
  decimalsOneByOne: true,
  minus: 'minus',
  to: 'bis',
  // Behind an article, or before what is counted so: a full stop alone may end the sentence.
  ordinalSign:
    /(?<=\b(?:der|die|das|dem|den|des|im|am|zum|zur|vom|beim|ins) )(\d{1,3})\.(?= \p{L})|\b(\d{1,2})\.(?= (?:Januar|Februar|März|April|Mai|Juni|Juli|August|September|Oktober|November|Dezember|Jahrhundert|Jahrtausend|Mal|Platz|Klasse|Stock|Auflage|Kapitel)\b)/gu,
  date: (day, month, inYear) =>
    `${ordinal(day, 'am')} ${MONTHS[month - 1] ?? ''}${inYear === null ? '' : ` ${year(inYear)}`}`,
  dateOrder: 'day',
  months: MONTHS,
  time: (hour, minute) => `${hour === 1 ? 'ein' : cardinal(hour)} Uhr${minute === 0 ? '' : ` ${cardinal(minute)}`}`,
  abbreviations: {
    'Dr.': 'Doktor',
    'Prof.': 'Professor',
    'Hr.': 'Herr',
    'Fr.': 'Frau',
    'St.': 'Sankt',
    'Nr.#': 'Nummer',
    'Jh.': 'Jahrhundert',
    'Str.': 'Straße',
    'Bd.': 'Band',
    'Abb.': 'Abbildung',
    'Tab.': 'Tabelle',
    'Kap.': 'Kapitel',
    'Art.': 'Artikel',
    'Abs.': 'Absatz',
    'Hrsg.': 'Herausgeber',
    'bzw.': 'beziehungsweise',
    'vgl.': 'vergleiche',
    'ca.': 'circa',
    'ggf.': 'gegebenenfalls',
    'evtl.': 'eventuell',
    'sog.': 'sogenannt',
    'usw.': 'und so weiter',
    'z. B.': 'zum Beispiel',
    'z.B.': 'zum Beispiel',
    'd. h.': 'das heißt',
    'd.h.': 'das heißt',
    'u. a.': 'unter anderem',
    'u.a.': 'unter anderem',
    'etc.': 'et cetera',
    'inkl.': 'inklusive',
    'Mio.': 'Millionen',
    'Mrd.': 'Milliarden',
    'Tsd.': 'tausend',
    'S.#': 'Seite',
    'Jan.': 'Januar',
    'Feb.': 'Februar',
    'Apr.': 'April',
    'Aug.': 'August',
    'Sept.': 'September',
    'Okt.': 'Oktober',
    'Nov.': 'November',
    'Dez.': 'Dezember',
  },
  money: {
    '€': { whole: ['Euro', 'Euro'], hundredth: ['Cent', 'Cent'] },
    EUR: { whole: ['Euro', 'Euro'], hundredth: ['Cent', 'Cent'] },
    $: { whole: ['Dollar', 'Dollar'], hundredth: ['Cent', 'Cent'] },
    '£': { whole: ['Pfund', 'Pfund'], hundredth: ['Penny', 'Pence'] },
  },
  multipliers: {
    'Mio.': 'Millionen',
    'Mrd.': 'Milliarden',
    'Tsd.': 'tausend',
    Millionen: 'Millionen',
    Milliarden: 'Milliarden',
  },
  units: {
    '%': ['Prozent', 'Prozent'],
    '°C': ['Grad Celsius', 'Grad Celsius'],
    '°': ['Grad', 'Grad'],
    mm: ['Millimeter', 'Millimeter'],
    cm: ['Zentimeter', 'Zentimeter'],
    m: ['Meter', 'Meter'],
    km: ['Kilometer', 'Kilometer'],
    'm²': ['Quadratmeter', 'Quadratmeter'],
    'm³': ['Kubikmeter', 'Kubikmeter'],
    V: ['Volt', 'Volt'],
    W: ['Watt', 'Watt'],
    dB: ['Dezibel', 'Dezibel'],
    'km²': ['Quadratkilometer', 'Quadratkilometer'],
    g: ['Gramm', 'Gramm'],
    kg: ['Kilogramm', 'Kilogramm'],
    t: ['Tonne', 'Tonnen'],
    ml: ['Milliliter', 'Milliliter'],
    l: ['Liter', 'Liter'],
    ha: ['Hektar', 'Hektar'],
    s: ['Sekunde', 'Sekunden'],
    min: ['Minute', 'Minuten'],
    h: ['Stunde', 'Stunden'],
    kW: ['Kilowatt', 'Kilowatt'],
    kWh: ['Kilowattstunde', 'Kilowattstunden'],
    MB: ['Megabyte', 'Megabyte'],
    GB: ['Gigabyte', 'Gigabyte'],
    'km/h': ['Kilometer pro Stunde', 'Kilometer pro Stunde'],
    'm/s': ['Meter pro Sekunde', 'Meter pro Sekunde'],
    kn: ['Knoten', 'Knoten'],
  },
  decade: (value) => `${year(value)}er`,
  fractions: {
    '1/2': 'ein halb',
    '1/4': 'ein Viertel',
    '3/4': 'drei Viertel',
    '½': 'einhalb',
    '¼': 'ein Viertel',
    '¾': 'drei Viertel',
    '⅓': 'ein Drittel',
    '⅔': 'zwei Drittel',
  },
  and: 'und',
  regnal: (value) => `der ${toOrdinal(value)}`,
  century: /\b([IVXL]+)\.(?= Jahrhundert)/g,
  at: 'ät',
  dot: 'Punkt',
  dash: 'Strich',
  underscore: 'Unterstrich',
  counted: 'kapitel teil band buch akt szene anhang abschnitt phase stufe typ klasse gruppe tafel seite artikel'.split(
    ' ',
  ),
  power: (value) => `hoch ${cardinal(value)}`,
  ratio: 'zu',
  signs: {
    '≠': 'ungleich',
    '<': 'kleiner als',
    '>': 'größer als',
    '÷': 'geteilt durch',
    '√': 'Wurzel aus',
    '∞': 'unendlich',
    π: 'Pi',
    '&': 'und',
    '§': 'Paragraf',
    '=': 'gleich',
    '×': 'mal',
    '±': 'plus minus',
    '≈': 'etwa',
    '≤': 'höchstens',
    '≥': 'mindestens',
    '+': 'plus',
  },
  frame: {
    heading: 'Überschrift',
    picture: 'Bild',
    table: 'Tabelle',
    columns: ['Spalte', 'Spalten'],
    rows: ['Zeile', 'Zeilen'],
    code: 'Programmtext, ausgelassen.',
  },
};
