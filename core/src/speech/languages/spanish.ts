import { toCardinal as cardinal, toOrdinal } from 'n2words/es-ES';
import type { SpokenLanguage } from './language';

const MONTHS = 'enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre'.split(' ');

/** Spanish basics. The words are common practice. */
export const spanish: SpokenLanguage = {
  cardinal,
  counting: (value, noun) => {
    const feminine = /^(?:tonelada|hora|hectárea|libra|columna|fila)/.test(noun);
    return cardinal(value)
      .replace(/veintiuno$/, feminine ? 'veintiuna' : 'veintiún')
      .replace(/uno$/, feminine ? 'una' : 'un');
  },
  ordinal: (value, before) => {
    const said = toOrdinal(value);
    return /^(?:la|una|las)$/i.test(before) ? said.replace(/o$/, 'a') : said;
  },
  year: cardinal,
  decimalSign: ',',
  point: 'coma',
  decimalsOneByOne: false,
  minus: 'menos',
  to: 'a',
  ordinalSign: /\b(\d{1,3})(?:\.?[ºª])/g,
  date: (day, month, inYear) =>
    `${day === 1 ? 'primero' : cardinal(day)} de ${MONTHS[month - 1] ?? ''}${inYear === null ? '' : ` de ${cardinal(inYear)}`}`,
  dateOrder: 'day',
  months: MONTHS,
  time: (hour, minute) => {
    const said = hour === 1 ? 'una' : cardinal(hour).replace(/uno$/, 'una');
    return minute === 0 ? `${said} en punto` : `${said} y ${cardinal(minute)}`;
  },
  abbreviations: {
    'Sr.': 'Señor',
    'Sra.': 'Señora',
    'Srta.': 'Señorita',
    'Dr.': 'Doctor',
    'Dra.': 'Doctora',
    'D. ': 'Don',
    'Dña.': 'Doña',
    'Ud.': 'usted',
    'Uds.': 'ustedes',
    'Prof.': 'Profesor',
    'Sto.': 'Santo',
    'Sta.': 'Santa',
    'pág.#': 'página',
    'págs.#': 'páginas',
    'p.#': 'página',
    'cap.#': 'capítulo',
    'art.#': 'artículo',
    'fig.#': 'figura',
    'núm.#': 'número',
    'n.º#': 'número',
    'vol.#': 'volumen',
    'aprox.': 'aproximadamente',
    'p. ej.': 'por ejemplo',
    'p.ej.': 'por ejemplo',
    'etc.': 'etcétera',
    'EE. UU.': 'Estados Unidos',
    'EE.UU.': 'Estados Unidos',
    'ene.': 'enero',
    'feb.': 'febrero',
    'abr.': 'abril',
    'ago.': 'agosto',
    'sept.': 'septiembre',
    'oct.': 'octubre',
    'nov.': 'noviembre',
    'dic.': 'diciembre',
  },
  money: {
    '€': { whole: ['euro', 'euros'], hundredth: ['céntimo', 'céntimos'] },
    EUR: { whole: ['euro', 'euros'], hundredth: ['céntimo', 'céntimos'] },
    $: { whole: ['dólar', 'dólares'], hundredth: ['centavo', 'centavos'] },
    '£': { whole: ['libra', 'libras'], hundredth: ['penique', 'peniques'] },
  },
  multipliers: { millones: 'millones de', millón: 'millón de', 'mil millones': 'mil millones de' },
  units: {
    '%': ['por ciento', 'por ciento'],
    '°C': ['grado Celsius', 'grados Celsius'],
    '°': ['grado', 'grados'],
    mm: ['milímetro', 'milímetros'],
    cm: ['centímetro', 'centímetros'],
    m: ['metro', 'metros'],
    km: ['kilómetro', 'kilómetros'],
    'm²': ['metro cuadrado', 'metros cuadrados'],
    'km²': ['kilómetro cuadrado', 'kilómetros cuadrados'],
    g: ['gramo', 'gramos'],
    kg: ['kilogramo', 'kilogramos'],
    t: ['tonelada', 'toneladas'],
    ml: ['mililitro', 'mililitros'],
    l: ['litro', 'litros'],
    ha: ['hectárea', 'hectáreas'],
    s: ['segundo', 'segundos'],
    min: ['minuto', 'minutos'],
    h: ['hora', 'horas'],
    kW: ['kilovatio', 'kilovatios'],
    kWh: ['kilovatio hora', 'kilovatios hora'],
    MB: ['megabyte', 'megabytes'],
    GB: ['gigabyte', 'gigabytes'],
    'km/h': ['kilómetro por hora', 'kilómetros por hora'],
    'm/s': ['metro por segundo', 'metros por segundo'],
  },
  fractions: { '½': 'medio', '¼': 'un cuarto', '¾': 'tres cuartos', '⅓': 'un tercio', '⅔': 'dos tercios' },
  and: 'y',
  regnal: (value) => (value <= 10 ? toOrdinal(value) : cardinal(value)),
  at: 'arroba',
  dot: 'punto',
  dash: 'guion',
  underscore: 'guion bajo',
  counted:
    'capítulo parte tomo volumen libro acto escena apéndice sección fase tipo clase grupo lámina página artículo siglo'.split(
      ' ',
    ),
  signs: {
    '&': 'y',
    '§': 'sección',
    '=': 'igual a',
    '×': 'por',
    '±': 'más menos',
    '≈': 'aproximadamente',
    '≤': 'como máximo',
    '≥': 'como mínimo',
    '+': 'más',
  },
  frame: {
    heading: 'Título',
    picture: 'Imagen',
    table: 'Tabla',
    columns: ['columna', 'columnas'],
    rows: ['fila', 'filas'],
    code: 'Código, omitido.',
  },
};
