import { toCardinal as british, toOrdinal as britishOrdinal } from 'n2words/en-GB';
import { toCardinal as american, toOrdinal as americanOrdinal } from 'n2words/en-US';
import type { SpokenLanguage } from './language';

const MONTHS = 'January February March April May June July August September October November December'.split(
  ' ',
);

/** English, as it is said in Britain or in America. The words are common practice. */
function englishOf(region: 'GB' | 'US'): SpokenLanguage {
  const cardinal = region === 'US' ? american : british;
  const ordinal = region === 'US' ? americanOrdinal : britishOrdinal;
  const year = (value: number): string => {
    const [century, rest] = [Math.floor(value / 100), value % 100];
    if (value < 1100 || value > 2099 || century === 20 && rest < 10) return cardinal(value); // prettier-ignore
    if (rest === 0) return `${cardinal(century)} hundred`;
    return `${cardinal(century)} ${rest < 10 ? `oh ${cardinal(rest)}` : cardinal(rest)}`;
  };
  return {
    cardinal: (value) => cardinal(value),
    counting: (value) => cardinal(value),
    ordinal: (value) => ordinal(value),
    year,
    decimalSign: '.',
    point: 'point',
    decimalsOneByOne: true,
    minus: 'minus',
    to: 'to',
    ordinalSign: /\b(\d{1,3}(?:,\d{3})*|\d+)(?:st|nd|rd|th)\b/g,
    date: (day, month, inYear) => {
      const name = MONTHS[month - 1] ?? '';
      const said = region === 'US' ? `${name} ${ordinal(day)}` : `the ${ordinal(day)} of ${name}`;
      return inYear === null ? said : `${said}${region === 'US' ? ',' : ''} ${year(inYear)}`;
    },
    dateOrder: region === 'US' ? 'month' : 'day',
    months: MONTHS,
    time: (hour, minute) => {
      if (minute === 0)
        return hour > 12 || hour === 0 ? `${cardinal(hour)} hundred hours` : `${cardinal(hour)} o’clock`;
      return `${cardinal(hour)} ${minute < 10 ? `oh ${cardinal(minute)}` : cardinal(minute)}`;
    },
    abbreviations: {
      'Mr.': 'Mister', 'Mrs.': 'Missis', 'Ms.': 'Miz', 'Dr.': 'Doctor', 'Prof.': 'Professor', 'Rev.': 'Reverend', 'Hon.': 'Honourable',
      'Capt.': 'Captain', 'Cmdr.': 'Commander', 'Col.': 'Colonel', 'Gen.': 'General', 'Lt.': 'Lieutenant', 'Sgt.': 'Sergeant',
      'Adm.': 'Admiral', 'Gov.': 'Governor', 'Sen.': 'Senator', 'Rep.': 'Representative', 'Pres.': 'President', 'Messrs.': 'Messieurs',
      'St. ': 'Saint', 'St.': 'Street', 'Mt.': 'Mount', 'Ft.': 'Fort', 'Jr.': 'Junior', 'Sr.': 'Senior', 'Ltd.': 'Limited', 'Inc.': 'Incorporated', 'Co.': 'Company',
      'e.g.': 'for example', 'i.e.': 'that is', 'etc.': 'et cetera', 'vs.': 'versus', 'viz.': 'namely', 'approx.': 'approximately',
      'ca.': 'circa', 'cf.': 'compare', 'et al.': 'and others', 'ibid.': 'in the same place', 'esp.': 'especially', 'incl.': 'including',
      'No.#': 'number', 'Nos.#': 'numbers', 'Vol.#': 'volume', 'Ch.#': 'chapter', 'Fig.#': 'figure', 'Figs.#': 'figures', 'Eq.#': 'equation',
      'Sec.#': 'section', 'pp.#': 'pages', 'p.#': 'page', 'ed. ': 'edition', 'eds. ': 'editors', 'dept.': 'department', 'govt.': 'government',
      'Jan.': 'January', 'Feb.': 'February', 'Apr.': 'April', 'Aug.': 'August', 'Sept.': 'September', 'Sep.': 'September', 'Oct.': 'October',
      'Nov.': 'November', 'Dec.': 'December', 'w/o ': 'without', 'a.m.': 'A M', 'p.m.': 'P M', 'B.C.': 'B C', 'A.D.': 'A D',
    }, // prettier-ignore
    money: {
      '£': { whole: ['pound', 'pounds'], hundredth: ['penny', 'pence'] },
      $: { whole: ['dollar', 'dollars'], hundredth: ['cent', 'cents'] },
      '€': { whole: ['euro', 'euros'], hundredth: ['cent', 'cents'] },
      '¥': { whole: ['yen', 'yen'] },
      GBP: { whole: ['pound', 'pounds'], hundredth: ['penny', 'pence'] },
      USD: { whole: ['US dollar', 'US dollars'], hundredth: ['cent', 'cents'] },
      EUR: { whole: ['euro', 'euros'], hundredth: ['cent', 'cents'] },
    },
    multipliers: { k: 'thousand', m: 'million', bn: 'billion', tn: 'trillion', M: 'million', B: 'billion', thousand: 'thousand', million: 'million', billion: 'billion', trillion: 'trillion' }, // prettier-ignore
    units: {
      '%': ['per cent', 'per cent'], '°C': ['degree Celsius', 'degrees Celsius'], '°F': ['degree Fahrenheit', 'degrees Fahrenheit'], '°': ['degree', 'degrees'],
      mm: ['millimetre', 'millimetres'], cm: ['centimetre', 'centimetres'], m: ['metre', 'metres'], km: ['kilometre', 'kilometres'],
      'm²': ['square metre', 'square metres'], 'km²': ['square kilometre', 'square kilometres'], 'm³': ['cubic metre', 'cubic metres'],
      ft: ['foot', 'feet'], yd: ['yard', 'yards'], mi: ['mile', 'miles'], nmi: ['nautical mile', 'nautical miles'],
      mg: ['milligram', 'milligrams'], g: ['gram', 'grams'], kg: ['kilogram', 'kilograms'], t: ['tonne', 'tonnes'], oz: ['ounce', 'ounces'], lb: ['pound', 'pounds'], lbs: ['pound', 'pounds'],
      ml: ['millilitre', 'millilitres'], l: ['litre', 'litres'], L: ['litre', 'litres'], ha: ['hectare', 'hectares'],
      ms: ['millisecond', 'milliseconds'], s: ['second', 'seconds'], min: ['minute', 'minutes'], h: ['hour', 'hours'], hr: ['hour', 'hours'], hrs: ['hour', 'hours'],
      Hz: ['hertz', 'hertz'], kHz: ['kilohertz', 'kilohertz'], MHz: ['megahertz', 'megahertz'], GHz: ['gigahertz', 'gigahertz'], dB: ['decibel', 'decibels'],
      V: ['volt', 'volts'], W: ['watt', 'watts'], kW: ['kilowatt', 'kilowatts'], MW: ['megawatt', 'megawatts'], kWh: ['kilowatt hour', 'kilowatt hours'], hp: ['horsepower', 'horsepower'],
      KB: ['kilobyte', 'kilobytes'], MB: ['megabyte', 'megabytes'], GB: ['gigabyte', 'gigabytes'], TB: ['terabyte', 'terabytes'],
      'km/h': ['kilometre per hour', 'kilometres per hour'], 'm/s': ['metre per second', 'metres per second'], mph: ['mile per hour', 'miles per hour'], kn: ['knot', 'knots'], kt: ['knot', 'knots'],
    }, // prettier-ignore
    fractions: { '½': 'a half', '¼': 'a quarter', '¾': 'three quarters', '⅓': 'a third', '⅔': 'two thirds', '⅛': 'an eighth', '1/2': 'a half', '1/4': 'a quarter', '3/4': 'three quarters', '1/3': 'a third', '2/3': 'two thirds' }, // prettier-ignore
    and: 'and',
    regnal: (value) => `the ${ordinal(value)}`,
    decade: (value) =>
      year(value)
        .replace(/ hundred$/, ' hundreds')
        .replace(/y$/, 'ies')
        .replace(/ten$/, 'tens'),
    century: /\b([IVXL]+)(?:st|nd|rd|th)?(?= century\b)/g,
    at: 'at',
    dot: 'dot',
    dash: 'dash',
    underscore: 'underscore',
    counted: 'chapter part volume book act scene appendix section canto psalm phase stage type class war grade group figure table page line article title level mark'.split(' '), // prettier-ignore
    signs: { '&': 'and', '§': 'section', '=': 'equals', '×': 'times', '±': 'plus or minus', '≈': 'about', '≤': 'at most', '≥': 'at least', '→': 'to', '+': 'plus', '#': 'number' }, // prettier-ignore
    frame: {
      heading: 'Heading',
      picture: 'Picture',
      table: 'Table',
      columns: ['column', 'columns'],
      rows: ['row', 'rows'],
      code: 'Code, left out.',
    },
  };
}

export const english = englishOf('GB');
export const americanEnglish = englishOf('US');
