import sharp from 'sharp';
import { numbers } from './drawings';

/** Pictures that are worth keeping for themselves: prints, pages, notices, photographs. All drawn by code. */
interface Print {
  width: number;
  height: number;
  format: 'png' | 'jpeg';
  draw(random: () => number): string;
  /** It was photographed: askew, lit from one side, with grain. */
  photographed?: { degrees: number };
  /** It is a photograph: soft, with grain all over. */
  isPhotograph?: { blur: number; grey?: boolean };
}

const INK = '#2b3038';
const SEPIA = '#5a4630';
const OLD = '#e9dcbd';
const range = (n: number) => Array.from({ length: n }, (_, index) => index);
const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
const paper = (width: number, height: number, tint: string) =>
  `<rect width="${width}" height="${height}" fill="${tint}"/>`;

interface Set {
  x: number;
  y: number;
  size: number;
  family?: string;
  fill?: string;
  leading?: number;
  weight?: number;
  anchor?: 'start' | 'middle';
  style?: string;
}
const lines = (
  words: readonly string[],
  { x, y, size, family = 'serif', fill = INK, leading = 1.42, weight = 400, anchor = 'start', style = 'normal' }: Set,
) =>
  words
    .map(
      (line, n) =>
        `<text x="${x}" y="${(y + n * size * leading).toFixed(1)}" font-size="${size}" font-family="${family}" font-weight="${weight}" font-style="${style}" text-anchor="${anchor}" fill="${fill}">${escaped(line)}</text>`,
    )
    .join('');

/** A shore as a closed line that wanders. */
function shore(random: () => number, x: number, y: number, wide: number, high: number): string {
  const bumps = range(5).map(() => [2 + Math.floor(random() * 7), random() * 6.3, 0.05 + random() * 0.1] as const);
  const points = range(120).map((k) => {
    const a = (k / 120) * Math.PI * 2;
    const by = bumps.reduce((sum, [times, from, much]) => sum + much * Math.sin(a * times + from), 1);
    return `${(x + Math.cos(a) * wide * by).toFixed(1)} ${(y + Math.sin(a) * high * by).toFixed(1)}`;
  });
  return `M${points.join('L')}Z`;
}

const chart = (
  title: readonly string[],
  tint: string,
  line: string,
  isles: readonly (readonly [number, number, number, number])[],
) => ({
  width: 1500,
  height: 1900,
  format: 'jpeg' as const,
  draw: (random: () => number) =>
    paper(1500, 1900, tint) +
    `<rect x="50" y="50" width="1400" height="1800" fill="none" stroke="${line}" stroke-width="10"/><rect x="76" y="76" width="1348" height="1748" fill="none" stroke="${line}" stroke-width="3"/>` +
    isles
      .map(([x, y, wide, high]) =>
        range(4)
          .map(
            (n) =>
              `<path d="${shore(numbers(x + y), x, y, wide + n * 46, high + n * 46)}" fill="${n === 0 ? '#d8c593' : 'none'}" stroke="${line}" stroke-width="${n === 0 ? 5 : 1.6}"/>`,
          )
          .reverse()
          .join(''),
      )
      .join('') +
    range(46)
      .map(
        () =>
          `<text x="${(120 + random() * 1240).toFixed(0)}" y="${(500 + random() * 1260).toFixed(0)}" font-size="26" font-family="serif" fill="${line}">${1 + Math.floor(random() * 28)}</text>`,
      )
      .join('') +
    `<rect x="420" y="110" width="660" height="${90 + title.length * 74}" fill="${tint}"/>` +
    lines(title, { x: 750, y: 190, size: 56, fill: line, anchor: 'middle', weight: 700, leading: 1.25 }) +
    `<g transform="translate(1240 1640)">${range(16)
      .map(
        (k) =>
          `<path d="M0 0L${k % 2 ? 60 : 130} 0" stroke="${line}" stroke-width="4" transform="rotate(${k * 22.5})"/>`,
      )
      .join('')}<circle r="40" fill="none" stroke="${line}" stroke-width="4"/></g>`,
});

const bird = (body: string, wing: string, legs: string, ground: string) => ({
  width: 1200,
  height: 1400,
  format: 'png' as const,
  draw: () =>
    paper(1200, 1400, '#f7f3e8') +
    `<path d="M130 1180q420 -70 940 10v120H130Z" fill="${ground}"/>` +
    `<path d="M300 760q60 -260 330 -290q110 -130 230 -80q90 50 70 150l150 40l-140 20q-30 230 -220 300q-190 70 -420 -140Z" fill="${body}" stroke="${INK}" stroke-width="10" stroke-linejoin="round"/>` +
    `<path d="M360 720q150 -170 360 -90q60 40 20 120q-170 110 -380 -30Z" fill="${wing}" stroke="${INK}" stroke-width="8"/>` +
    `<circle cx="832" cy="470" r="16" fill="${INK}"/><path d="M520 890v280M620 900v270" stroke="${legs}" stroke-width="22" stroke-linecap="round"/>`,
});

const MINUTES = [
  [
    'MINUTES OF THE FERRY MEETING',
    'held in the net loft on the ninth of March 1931',
    '',
    'Present were the boatman, the schoolmistress, four',
    'farmers of the north end and the widow Saltmarsh,',
    'who keeps the lamp. The chair was taken by Mr Holm.',
    '',
    'It was agreed that the boat shall cross on market',
    'days whatever the tide, and that nobody who carries',
    'the post shall be asked for a fare.',
  ],
  [
    'A new rope for the slip was asked for. The chandler',
    'wants eleven shillings for forty fathoms of manila.',
    'The meeting thought this dear, and sent for hemp.',
    '',
    'The schoolmistress asked that the bell be rung when',
    'the last boat is put off by fog. Agreed by all but',
    'two, who live beside the bell.',
    '',
    'The meeting closed when the lamp was needed.',
  ],
] as const;

const page = (words: readonly string[], tint: string): Omit<Print, 'photographed'> => ({
  width: 1300,
  height: 1000 + 10 * words.length,
  format: 'jpeg',
  draw: () =>
    paper(1300, 1000 + 10 * words.length, tint) +
    lines(words, { x: 130, y: 170, size: 40, fill: '#332c26', leading: 1.75 }),
});

const by = (random: () => number) => (random() - 0.5) * 2;

const PRINTS: Readonly<Record<string, Print>> = {
  'catalogue-page': {
    width: 1500,
    height: 2000,
    format: 'jpeg',
    photographed: { degrees: 2.2 },
    draw: () =>
      paper(1500, 2000, '#f1e8d2') +
      lines(['SALTMARSH & ARROWSMITH'], { x: 750, y: 180, size: 74, anchor: 'middle', weight: 700 }) +
      lines(['Chandlers to the island trade · Skerrow · page 41'], { x: 750, y: 250, size: 36, anchor: 'middle' }) +
      `<path d="M120 290H1380M750 340V1880" stroke="${INK}" stroke-width="3"/>` +
      [
        ['No. 118  Shackle, bronze', 'Bow pattern, 8 mm pin,', 'tested to half a ton.', 'Each  4.20'],
        ['No. 119  Snatch block', 'Ash cheeks, brass sheave,', 'for rope up to 14 mm.', 'Each  31.00'],
        ['No. 120  Cleat, oak', 'Two horns, 220 mm long,', 'oiled, with copper rivets.', 'Each  9.80'],
        ['No. 121  Rowlock pair', 'Galvanised, leathered,', 'with chain and pins.', 'Pair  18.50'],
        ['No. 122  Lantern, dipping', 'Copper, paraffin, burns', 'eleven hours on a filling.', 'Each  64.00'],
        ['No. 123  Marline, tarred', 'Ball of one hundred metres', 'for seizing and serving.', 'Ball  7.10'],
      ]
        .map((entry, n) => {
          const [x, y] = [n % 2 === 0 ? 150 : 800, 430 + Math.floor(n / 2) * 480];
          const [head = '', ...rest] = entry;
          return (
            lines([head], { x, y, size: 42, weight: 700 }) +
            lines(rest, { x, y: y + 70, size: 36 }) +
            `<circle cx="${x + 250}" cy="${y + 310}" r="62" fill="none" stroke="${INK}" stroke-width="12"/><path d="M${x + 180} ${y + 250}h140" stroke="${INK}" stroke-width="14"/>`
          );
        })
        .join(''),
  },
  'chart-of-the-sound': chart(['THE SOUND', 'OF SKERROW', 'surveyed 1871'], OLD, SEPIA, [
    [520, 900, 250, 190],
    [1080, 1330, 190, 240],
  ]),
  'chart-of-the-bar': chart(['ENTRANCE', 'AND BAR'], '#dfe7e6', '#27505c', [
    [340, 1180, 210, 330],
    [1150, 820, 220, 200],
  ]),
  'chart-of-the-streams': chart(['TIDAL STREAMS', 'four hours after high water'], '#f0e6d0', '#7a3d2a', [
    [740, 1080, 330, 260],
  ]),
  notice: {
    width: 1400,
    height: 1050,
    format: 'jpeg',
    photographed: { degrees: -3.1 },
    draw: (random) =>
      paper(1400, 1050, '#d9b56b') +
      `<rect x="70" y="70" width="1260" height="910" fill="none" stroke="#4a3518" stroke-width="14"/>` +
      ['NO BOAT TODAY', 'wind over tide', 'Ask at the loft', 'Ines']
        .map((words, n) =>
          Array.from(words)
            .map(
              (letter, k) =>
                `<text transform="translate(${150 + k * (n === 0 ? 86 : 62)} ${300 + n * 190 + by(random) * 9}) rotate(${(by(random) * 7).toFixed(1)})" font-size="${n === 0 ? 124 : 96}" font-family="sans-serif" font-style="italic" fill="#3a2410">${letter}</text>`,
            )
            .join(''),
        )
        .join(''),
  },
  'minutes-1': { ...page(MINUTES[0], '#efe6d6'), photographed: { degrees: 1.4 } },
  'minutes-2': { ...page(MINUTES[1], '#ece3d4'), photographed: { degrees: -1.8 } },
  'engine-section': {
    width: 1600,
    height: 1100,
    format: 'png',
    draw: () =>
      paper(1600, 1100, '#ffffff') +
      `<g fill="none" stroke="#14213d" stroke-width="7"><rect x="280" y="260" width="300" height="470"/><rect x="320" y="400" width="220" height="70" fill="#cbd5e1"/><path d="M430 470V820M430 820L760 900"/><circle cx="800" cy="900" r="130"/><rect x="900" y="300" width="320" height="240" fill="#e2e8f0"/><path d="M580 320H900M1060 540V760M1220 420H1400V860"/><rect x="980" y="760" width="160" height="130"/></g>` +
      lines(['Cylinder'], { x: 300, y: 230, size: 46, family: 'sans-serif' }) +
      lines(['Piston'], { x: 350, y: 380, size: 40, family: 'sans-serif' }) +
      lines(['Flywheel'], { x: 720, y: 1080, size: 46, family: 'sans-serif' }) +
      lines(['Condenser'], { x: 940, y: 270, size: 46, family: 'sans-serif' }) +
      lines(['Feed pump'], { x: 960, y: 950, size: 46, family: 'sans-serif' }) +
      lines(['Fig. 7  The quiet engine, in section'], { x: 480, y: 120, size: 52, family: 'sans-serif', weight: 700 }),
  },
  'engine-wiring': {
    width: 1600,
    height: 1000,
    format: 'png',
    draw: () =>
      paper(1600, 1000, '#f8fafc') +
      `<g fill="#e0f2fe" stroke="#0f172a" stroke-width="6"><rect x="120" y="380" width="280" height="200"/><rect x="660" y="200" width="300" height="200"/><rect x="660" y="600" width="300" height="200"/><rect x="1240" y="380" width="260" height="200"/></g><g fill="none" stroke="#b91c1c" stroke-width="10"><path d="M400 440H530V300H660M960 300H1120V440H1240"/></g><g fill="none" stroke="#0f172a" stroke-width="10"><path d="M400 520H530V700H660M960 700H1120V520H1240"/></g>` +
      lines(['Battery bank', '48 volts'], { x: 150, y: 460, size: 40, family: 'sans-serif' }) +
      lines(['Controller'], { x: 710, y: 315, size: 44, family: 'sans-serif' }) +
      lines(['Charger'], { x: 730, y: 715, size: 44, family: 'sans-serif' }) +
      lines(['Motor', '11 kilowatts'], { x: 1262, y: 460, size: 38, family: 'sans-serif' }) +
      lines(['Wiring of the ferry'], { x: 560, y: 110, size: 56, family: 'sans-serif', weight: 700 }),
  },
  oystercatcher: bird('#26262b', '#f4f4f0', '#e2725b', '#c9b98f'),
  wheatear: bird('#d9a86c', '#6d7f94', '#2b2b2b', '#8a9a5b'),
  'tern-in-line': {
    width: 1300,
    height: 1000,
    format: 'png',
    draw: () =>
      paper(1300, 1000, '#ffffff') +
      `<g fill="none" stroke="#111111" stroke-width="5" stroke-linecap="round" stroke-linejoin="round"><path d="M120 520q260 -310 480 -90q40 -60 120 -50q90 10 120 70l150 10l-140 40q-40 110 -190 130q-160 20 -260 -60q-80 110 -230 150q60 -90 60 -200M600 430q150 -260 520 -330q-90 190 -360 320"/><circle cx="790" cy="430" r="9"/>` +
      range(26)
        .map((n) => `<path d="M${620 + n * 16} ${400 - n * 9}l${30 + n * 2} ${18 + n}"/>`)
        .join('') +
      '</g>',
  },
  timetable: {
    width: 1440,
    height: 1000,
    format: 'png',
    draw: () =>
      paper(1440, 1000, '#ffffff') +
      '<rect width="1440" height="92" fill="#1f4e79"/><rect y="92" width="300" height="908" fill="#eef2f6"/>' +
      lines(['Skerrow Ferry'], { x: 40, y: 60, size: 38, family: 'sans-serif', fill: '#ffffff', weight: 700 }) +
      lines(['Crossings', 'Bookings', 'Weather', 'Members'], {
        x: 40,
        y: 170,
        size: 30,
        family: 'sans-serif',
        leading: 2.1,
      }) +
      lines(['Winter timetable'], { x: 350, y: 170, size: 44, family: 'sans-serif', weight: 700 }) +
      range(9)
        .map((n) => `<path d="M350 ${220 + n * 76}H1390" stroke="#cbd5e1" stroke-width="3"/>`)
        .join('') +
      ['North quay', '07:10', '09:40', '12:05', '14:30', '16:20', '18:45', '21:00']
        .map((word, n) =>
          lines([word], { x: 370, y: 270 + n * 76, size: 30, family: 'sans-serif', weight: n ? 400 : 700 }),
        )
        .join('') +
      ['South slip', '07:35', '10:05', '12:30', '14:55', '16:45', '19:10', '21:25']
        .map((word, n) =>
          lines([word], { x: 720, y: 270 + n * 76, size: 30, family: 'sans-serif', weight: n ? 400 : 700 }),
        )
        .join('') +
      '<rect x="1130" y="860" width="260" height="80" rx="14" fill="#1f4e79"/>' +
      lines(['Book a place'], { x: 1165, y: 912, size: 32, family: 'sans-serif', fill: '#ffffff' }),
  },
  'passengers-by-month': {
    width: 1500,
    height: 950,
    format: 'png',
    draw: () =>
      paper(1500, 950, '#ffffff') +
      lines(['Passengers by month, 2025'], { x: 120, y: 90, size: 48, family: 'sans-serif', weight: 700 }) +
      '<path d="M120 140V820H1420" fill="none" stroke="#1a1a1a" stroke-width="5"/>' +
      ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
        .map((month, n) => {
          const high = 90 + 470 * Math.sin(((n + 0.6) / 12) * Math.PI) ** 2;
          return `<rect x="${150 + n * 105}" y="${(820 - high).toFixed(0)}" width="70" height="${high.toFixed(0)}" fill="#2f6f6f"/>${lines([month], { x: 152 + n * 105, y: 870, size: 30, family: 'sans-serif' })}`;
        })
        .join(''),
  },
  'harbour-at-dusk': {
    width: 1600,
    height: 1067,
    format: 'jpeg',
    isPhotograph: { blur: 7 },
    draw: (random) =>
      '<defs><linearGradient id="s" x2="0" y2="1"><stop offset="0" stop-color="#1d2b53"/><stop offset=".5" stop-color="#b5677a"/><stop offset=".62" stop-color="#f2b16b"/><stop offset=".63" stop-color="#2a3a55"/><stop offset="1" stop-color="#0d1628"/></linearGradient></defs><rect width="1600" height="1067" fill="url(#s)"/>' +
      `<path d="M0 670q180 -90 340 -40t420 -50t520 60t320 -20V690H0Z" fill="#141b2c"/>` +
      range(40)
        .map(
          () =>
            `<ellipse cx="${(random() * 1600).toFixed(0)}" cy="${(700 + random() * 350).toFixed(0)}" rx="${(20 + random() * 90).toFixed(0)}" ry="4" fill="#e79a62" opacity="${(random() * 0.5).toFixed(2)}"/>`,
        )
        .join('') +
      range(5)
        .map(
          (n) =>
            `<path d="M${260 + n * 270} 640v-${110 + n * 14}" stroke="#0b101c" stroke-width="6"/><path d="M${220 + n * 270} 660h90l-14 34h-62Z" fill="#0b101c"/>`,
        )
        .join(''),
  },
  'eelgrass-from-the-kite': {
    width: 1500,
    height: 1125,
    format: 'jpeg',
    isPhotograph: { blur: 5 },
    draw: (random) =>
      paper(1500, 1125, '#3d7f78') +
      range(420)
        .map(
          () =>
            `<ellipse cx="${(random() * 1500).toFixed(0)}" cy="${(random() * 1125).toFixed(0)}" rx="${(8 + random() * 70).toFixed(0)}" ry="${(5 + random() * 34).toFixed(0)}" fill="${random() > 0.45 ? '#27523f' : '#6fae95'}" opacity="${(0.2 + random() * 0.6).toFixed(2)}" transform="rotate(${(random() * 40 - 20).toFixed(0)} 750 560)"/>`,
        )
        .join(''),
  },
  'slipway-1931': {
    width: 1400,
    height: 1000,
    format: 'jpeg',
    isPhotograph: { blur: 4, grey: true },
    draw: (random) =>
      '<defs><linearGradient id="g" x2="1" y2="1"><stop offset="0" stop-color="#d8d8d8"/><stop offset="1" stop-color="#4a4a4a"/></linearGradient></defs><rect width="1400" height="1000" fill="url(#g)"/>' +
      `<path d="M0 620L1400 470V1000H0Z" fill="#5b5b5b"/><path d="M420 520q160 160 520 30l-40 170q-220 90 -430 -20Z" fill="#2b2b2b"/>` +
      range(90)
        .map(
          () =>
            `<path d="M${(random() * 1400).toFixed(0)} ${(620 + random() * 370).toFixed(0)}l${(40 + random() * 80).toFixed(0)} -6" stroke="#8c8c8c" stroke-width="${(2 + random() * 6).toFixed(0)}" opacity=".5"/>`,
        )
        .join(''),
  },
};

const kept = new Map<string, Promise<Buffer>>();

/** A print as a file; undefined for a name that has none. */
export function printOf(name: string): { made: Promise<Buffer>; format: 'png' | 'jpeg' } | undefined {
  const print = Object.hasOwn(PRINTS, name) ? PRINTS[name] : undefined;
  if (!print) return undefined;
  const made = kept.get(name) ?? drawn(name, print);
  kept.set(name, made);
  return { made, format: print.format };
}

async function drawn(
  name: string,
  { width, height, format, draw, photographed, isPhotograph }: Print,
): Promise<Buffer> {
  const random = numbers(Array.from(name).reduce((sum, char) => sum * 31 + char.charCodeAt(0), 11));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">${draw(random)}</svg>`;
  let picture = sharp(Buffer.from(svg)).flatten({ background: '#ffffff' });
  if (isPhotograph) picture = picture.blur(isPhotograph.blur);
  const size = { width, height };
  if (photographed) {
    const turned = await picture
      .rotate(photographed.degrees, { background: '#6b5b4a' })
      .png()
      .toBuffer({ resolveWithObject: true });
    size.width = turned.info.width;
    size.height = turned.info.height;
    picture = sharp(turned.data).blur(0.7);
  }
  if (photographed || isPhotograph) {
    const flat = await picture.png().toBuffer();
    picture = sharp(flat).composite([
      { input: await shade(size), blend: 'multiply' },
      { input: await grain(size, random), blend: 'soft-light' },
    ]);
    if (isPhotograph?.grey) picture = sharp(await picture.png().toBuffer()).greyscale();
  }
  return picture.toFormat(format, { quality: 84 }).toBuffer();
}

/** Light from one side. */
const shade = ({ width, height }: { width: number; height: number }) =>
  sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><defs><linearGradient id="l" x2="1" y2=".6"><stop offset="0" stop-color="#ffffff"/><stop offset="1" stop-color="#b9b4ac"/></linearGradient></defs><rect width="${width}" height="${height}" fill="url(#l)"/></svg>`,
    ),
  )
    .png()
    .toBuffer();

/** The grain of a sensor, coarser than a pixel. */
function grain({ width, height }: { width: number; height: number }, random: () => number): Promise<Buffer> {
  const [across, down] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const data = Buffer.from(range(across * down).map(() => 128 + Math.round(by(random) * 46)));
  return sharp(data, { raw: { width: across, height: down, channels: 1 } })
    .resize({ width, height, fit: 'fill', kernel: 'cubic' })
    .png()
    .toBuffer();
}
