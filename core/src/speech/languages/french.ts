import { toCardinal as cardinal, toOrdinal } from 'n2words/fr-FR';
import type { SpokenLanguage } from './language';

const MONTHS = 'janvier février mars avril mai juin juillet août septembre octobre novembre décembre'.split(
  ' ',
);

/** French basics. The words are common practice. */
export const french: SpokenLanguage = {
  cardinal,
  counting: (value, noun) =>
    cardinal(value).replace(
      /un$/,
      /^(?:tonne|seconde|minute|heure|livre|colonne|ligne)/.test(noun) ? 'une' : 'un',
    ),
  ordinal: (value, before) => (value === 1 && /^(?:la|une)$/i.test(before) ? 'première' : toOrdinal(value)),
  year: cardinal,
  decimalSign: ',',
  point: 'virgule',
  decimalsOneByOne: false,
  minus: 'moins',
  to: 'à',
  ordinalSign: /\b(\d+)(?:ers?|res?|ères?|es?|èmes?|nde?|ᵉ)(?![\p{L}\d])/gu,
  date: (day, month, inYear) =>
    `${day === 1 ? 'premier' : cardinal(day)} ${MONTHS[month - 1] ?? ''}${inYear === null ? '' : ` ${cardinal(inYear)}`}`,
  dateOrder: 'day',
  months: MONTHS,
  time: (hour, minute) =>
    `${hour === 1 ? 'une' : cardinal(hour)} heure${hour > 1 ? 's' : ''}${minute === 0 ? '' : ` ${cardinal(minute)}`}`,
  abbreviations: {
    'M. ': 'Monsieur', 'MM. ': 'Messieurs', Mme: 'Madame', Mmes: 'Mesdames', Mlle: 'Mademoiselle', 'Dr': 'Docteur', 'Pr': 'Professeur', 'Me ': 'Maître', 'St-': 'Saint',
    'p.#': 'page', 'pp.#': 'pages', 'vol.#': 'volume', 'chap.#': 'chapitre', 'art.#': 'article', 'fig.#': 'figure', 'env.#': 'environ', 'av. ': 'avant', 'apr. ': 'après',
    'cf.': 'voir', 'n°#': 'numéro', 'p. ex.': 'par exemple', 'p.ex.': 'par exemple', 'etc.': 'et cetera', "c.-à-d.": 'c’est-à-dire',
    'janv.': 'janvier', 'févr.': 'février', 'avr.': 'avril', 'juil.': 'juillet', 'sept.': 'septembre', 'oct.': 'octobre', 'nov.': 'novembre', 'déc.': 'décembre',
  }, // prettier-ignore
  money: {
    '€': { whole: ['euro', 'euros'], hundredth: ['centime', 'centimes'] },
    EUR: { whole: ['euro', 'euros'], hundredth: ['centime', 'centimes'] },
    $: { whole: ['dollar', 'dollars'], hundredth: ['cent', 'cents'] },
    '£': { whole: ['livre', 'livres'], hundredth: ['penny', 'pence'] },
  },
  multipliers: { millions: 'millions', million: 'million', milliards: 'milliards', milliard: 'milliard', 'M': 'millions' }, // prettier-ignore
  units: {
    '%': ['pour cent', 'pour cent'], '°C': ['degré Celsius', 'degrés Celsius'], '°': ['degré', 'degrés'], mm: ['millimètre', 'millimètres'], cm: ['centimètre', 'centimètres'],
    m: ['mètre', 'mètres'], km: ['kilomètre', 'kilomètres'], 'm²': ['mètre carré', 'mètres carrés'], 'km²': ['kilomètre carré', 'kilomètres carrés'], g: ['gramme', 'grammes'],
    kg: ['kilogramme', 'kilogrammes'], t: ['tonne', 'tonnes'], ml: ['millilitre', 'millilitres'], l: ['litre', 'litres'], ha: ['hectare', 'hectares'], s: ['seconde', 'secondes'],
    min: ['minute', 'minutes'], h: ['heure', 'heures'], kW: ['kilowatt', 'kilowatts'], kWh: ['kilowattheure', 'kilowattheures'], Mo: ['mégaoctet', 'mégaoctets'], Go: ['gigaoctet', 'gigaoctets'],
    'km/h': ['kilomètre à l’heure', 'kilomètres à l’heure'], 'm/s': ['mètre par seconde', 'mètres par seconde'],
  }, // prettier-ignore
  fractions: { '½': 'un demi', '¼': 'un quart', '¾': 'trois quarts', '⅓': 'un tiers', '⅔': 'deux tiers' },
  and: 'et',
  regnal: (value) => (value === 1 ? 'premier' : cardinal(value)),
  century: /\b([IVXL]+)(?:e|ème|ᵉ)(?= siècle)/g,
  at: 'arobase',
  dot: 'point',
  dash: 'tiret',
  underscore: 'tiret bas',
  counted: 'chapitre partie tome volume livre acte scène annexe section phase type classe groupe planche page article'.split(' '), // prettier-ignore
  signs: { '&': 'et', '§': 'paragraphe', '=': 'égale', '×': 'fois', '±': 'plus ou moins', '≈': 'environ', '≤': 'au plus', '≥': 'au moins', '+': 'plus' }, // prettier-ignore
  frame: {
    heading: 'Titre',
    picture: 'Image',
    table: 'Tableau',
    columns: ['colonne', 'colonnes'],
    rows: ['ligne', 'lignes'],
    code: 'Code, omis.',
  },
};
