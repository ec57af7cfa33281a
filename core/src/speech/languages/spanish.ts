import { toCardinal, toOrdinal } from 'n2words/es-ES';
import type { SpokenLanguage } from './language';

const MONTHS = 'enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre'.split(' ');

// The package leaves one accent out, and with it the stress falls elsewhere.
const cardinal = (value: number | bigint): string => toCardinal(value).replace(/dieciseis$/, 'dieciséis');

/** Ends like a word for several that is feminine; those of Greek origin and a few more are not. */
const FEMININE =
  /(?:as|iones|dades|tades|tudes|umbres)$|^(?:mujeres|veces|voces|noches|tardes|calles|clases|partes|llaves|naves|aves|flores|leyes|redes|paredes|imágenes|series|especies|bases|frases|fases|fuentes|raíces|luces|cruces|manos|sedes|torres|nubes|tribus)$/;
const MASCULINE_ALL_THE_SAME =
  /^(?:días|mapas|planetas|cometas|tranvías|poetas|\p{L}*(?:emas|omas|ramas)|atletas|artistas|colegas|guardias|policías)$/u;
/** What a number may stand before without counting it. */
const COUNTS_NOTHING =
  /^(?:más|menos|mas|las|los|les|nos|sus|tus|mis|esas|esos|estas|estos|unas|unos|otras|otros|ellas|ellos|ambas|ambos|tras|pues|además|entonces|después|antes)$/;

/** Spanish basics. The words are common practice. */
export const spanish: SpokenLanguage = {
  cardinal,
  counting: (value, noun) => {
    const feminine = /^(?:tonelada|hora|hectárea|libra|columna|fila)/.test(noun);
    return cardinal(value)
      .replace(/veintiuno$/, feminine ? 'veintiuna' : 'veintiún')
      .replace(/uno$/, feminine ? 'una' : 'un');
  },
  // How cardinals agree: Real Academia Española, Diccionario panhispánico de dudas, “cardinales” (from memory).
  agreeing: (said, next) => {
    if (next === 'mil') return said.replace(/veintiuno$/, 'veintiún').replace(/uno$/, 'un');
    if (!next.endsWith('s') || COUNTS_NOTHING.test(next)) return said;
    if (!FEMININE.test(next) || MASCULINE_ALL_THE_SAME.test(next))
      return said.replace(/veintiuno$/, 'veintiún').replace(/uno$/, 'un');
    // What stands before *mil* counts the same; what stands before *millón* counts millions.
    const [, millions = '', rest = said] = /^(.*mill(?:ón|ones) )?(.*)$/.exec(said) ?? [];
    return (
      millions +
      rest
        .replace(/cientos(?=$| )/g, 'cientas')
        .replace(/quinientos(?=$| )/g, 'quinientas')
        .replace(/uno$/, 'una')
    );
  },
  ordinal: (value, before, written = '') => {
    const said = toOrdinal(value);
    if (written.endsWith('er')) return said.replace(/o$/, '');
    return /(?:^| )(?:la|una|las)$/i.test(before) || written.includes('ª') ? said.replace(/o$/, 'a') : said;
  },
  year: cardinal,
  decimalSign: ',',
  point: 'coma',
  decimalsOneByOne: false,
  minus: 'menos',
  to: 'a',
  ordinalSign: /\b(\d{1,3})(?:\.?[ºª]|\.er\b)/g,
  date: (day, month, inYear) =>
    `${day === 1 ? 'primero' : cardinal(day)} de ${MONTHS[month - 1] ?? ''}${inYear === null ? '' : ` de ${cardinal(inYear)}`}`,
  dateOrder: 'day',
  months: MONTHS,
  time: (hour, minute) => {
    const said = hour === 1 ? 'una' : cardinal(hour).replace(/uno$/, 'una');
    return minute === 0 ? said : `${said} y ${cardinal(minute)}`;
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
    'Vol.#': 'Volumen',
    'tel.': 'teléfono',
    'Av. ': 'Avenida',
    'a. C.': 'antes de Cristo',
    'd. C.': 'después de Cristo',
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
    'm³': ['metro cúbico', 'metros cúbicos'],
    V: ['voltio', 'voltios'],
    W: ['vatio', 'vatios'],
    dB: ['decibelio', 'decibelios'],
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
  fractions: {
    '1/2': 'un medio',
    '1/4': 'un cuarto',
    '3/4': 'tres cuartos',
    '½': 'medio',
    '¼': 'un cuarto',
    '¾': 'tres cuartos',
    '⅓': 'un tercio',
    '⅔': 'dos tercios',
  },
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
  power: (value) => (value === 2 ? 'al cuadrado' : value === 3 ? 'al cubo' : `a la ${cardinal(value)}`),
  ratio: 'a',
  signs: {
    '≠': 'distinto de',
    '<': 'menor que',
    '>': 'mayor que',
    '÷': 'dividido por',
    '√': 'raíz cuadrada de',
    '∞': 'infinito',
    π: 'pi',
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
