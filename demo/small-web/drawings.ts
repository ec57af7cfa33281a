import sharp from 'sharp';

/** The small web's pictures, drawn by code: every one is a simple figure of what its article is about. */
const PAPER = '#f3eee2';
const INK = '#2c3440';
const WATER = '#7f9fa6';
const DEEP = '#35535c';
const GRASS = '#5c7a4a';
const WARM = '#b4763f';

/** A small deterministic source of numbers in 0…1 (mulberry32), so that a picture is the same each time. */
export function numbers(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

const W = 1600;
const H = 1000;
const range = (n: number) => Array.from({ length: n }, (_, index) => index);
const path = (points: [number, number][], style: string) =>
  `<path d="M${points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}" ${style}/>`;
const line = `fill="none" stroke="${INK}" stroke-width="5" stroke-linecap="round" stroke-linejoin="round"`;

const FIGURES: Record<string, (random: () => number) => string> = {
  meadow: (r) =>
    `<rect width="${W}" height="${H}" fill="${WATER}"/><rect y="820" width="${W}" height="180" fill="#d9c9a3"/>` +
    range(160)
      .map((i) => {
        const x = (i * 10) % W;
        const high = x > 900 && x < 1200 ? 40 : 220 + r() * 330;
        const lean = 40 + r() * 120;
        return `<path d="M${x} ${830 + r() * 60}q${lean * 0.1} ${-high / 2} ${lean} ${-high}" fill="none" stroke="${r() > 0.4 ? GRASS : '#3f5a38'}" stroke-width="${6 + r() * 8}" stroke-linecap="round"/>`;
      })
      .join('') +
    range(30)
      .map(() => `<circle cx="${r() * W}" cy="${100 + r() * 500}" r="${3 + r() * 8}" fill="#dfeaea" opacity=".7"/>`)
      .join(''),
  contour: (r) =>
    `<rect width="${W}" height="${H}" fill="#dfe7e3"/>` +
    range(9)
      .map((i) => {
        const ring: [number, number][] = range(73).map((k) => {
          const a = (k / 72) * Math.PI * 2;
          const wobble = 1 + 0.18 * Math.sin(a * 3 + i / 3) + 0.08 * Math.sin(a * 7 + 1);
          return [820 + Math.cos(a) * (90 + i * 85) * wobble, 520 + Math.sin(a) * (50 + i * 55) * wobble];
        });
        return path(ring, `fill="${i === 0 ? DEEP : 'none'}" stroke="${DEEP}" stroke-width="${i % 3 === 0 ? 6 : 3}"`);
      })
      .join('') +
    range(22)
      .map(
        () =>
          `<text x="${80 + r() * 1450}" y="${80 + r() * 860}" font-size="34" font-family="serif" fill="${INK}">${(1 + r() * 8).toFixed(1)}</text>`,
      )
      .join(''),
  spectrum: (r) =>
    `<rect width="${W}" height="${H}" fill="#191424"/>` +
    range(80)
      .flatMap((x) =>
        range(40).map((y) => {
          const loud = x < 44 ? Math.exp(-Math.abs(y - 12) / 9) * (0.4 + r() * 0.6) : Math.exp(-y / 3) * r() * 0.5;
          return `<rect x="${x * 20}" y="${960 - y * 24}" width="19" height="23" fill="rgb(${Math.round(60 + 190 * loud)},${Math.round(40 + 150 * loud)},${Math.round(80 + 40 * loud)})"/>`;
        }),
      )
      .join(''),
  hull: () =>
    `<rect width="${W}" height="${H}" fill="${PAPER}"/><rect y="560" width="${W}" height="440" fill="${WATER}" opacity=".45"/>` +
    `<path d="M300 220C330 620 560 840 800 860C1040 840 1270 620 1300 220" fill="#c79a63" stroke="${INK}" stroke-width="10"/><path d="M350 230C380 590 590 790 800 810C1010 790 1220 590 1250 230" fill="${PAPER}" stroke="${INK}" stroke-width="5"/>` +
    range(7)
      .map(
        (i) => `<path d="M${322 + i * 62} ${330 + i * 76}l44 -22M${1278 - i * 62} ${330 + i * 76}l-44 -22" ${line}/>`,
      )
      .join('') +
    `<rect x="770" y="810" width="60" height="130" fill="${WARM}" stroke="${INK}" stroke-width="6"/><path d="M120 560H1480" stroke="${DEEP}" stroke-width="5" stroke-dasharray="18 14"/>`,
  ribs: () =>
    `<rect width="${W}" height="${H}" fill="${PAPER}"/>` +
    range(3)
      .map(
        (i) =>
          `<path d="M${200 + i * 430} 860Q${220 + i * 430} ${700 - i * 120} ${520 + i * 400} ${600 - i * 210}" fill="none" stroke="${WARM}" stroke-width="46" stroke-linecap="round"/>` +
          range(i + 2)
            .map(
              (k) =>
                `<rect x="${240 + i * 430 + k * 62}" y="${640 - k * 45 - i * 50}" width="26" height="90" rx="6" fill="${INK}"/>`,
            )
            .join(''),
      )
      .join(''),
  planks: () =>
    `<rect width="${W}" height="${H}" fill="${PAPER}"/>` +
    range(6)
      .map(
        (i) =>
          `<path d="M100 ${180 + i * 110}Q800 ${120 + i * 112} 1500 ${200 + i * 108}" fill="none" stroke="${i === 5 ? '#8f6a3f' : WARM}" stroke-width="96"/><path d="M100 ${232 + i * 110}Q800 ${172 + i * 112} 1500 ${252 + i * 108}" ${line}/>`,
      )
      .join('') +
    `<path d="M180 790Q800 740 1440 800" fill="none" stroke="${DEEP}" stroke-width="10" stroke-dasharray="2 26" stroke-linecap="round"/><rect x="80" y="860" width="1440" height="80" fill="${INK}"/>`,
  engine: () =>
    `<rect width="${W}" height="${H}" fill="${PAPER}"/>` +
    [0, 480]
      .map(
        (y, k) =>
          `<path d="M80 ${300 + y}H1520L1440 ${430 + y}H160Z" fill="#dcd3c0" stroke="${INK}" stroke-width="6"/>` +
          (k === 0
            ? `<rect x="620" y="190" width="360" height="150" fill="${INK}"/><rect x="1100" y="250" width="220" height="90" fill="${WARM}"/>`
            : `<rect x="900" y="${280 + y}" width="120" height="80" fill="${DEEP}"/><rect x="460" y="${310 + y}" width="300" height="70" fill="${GRASS}"/><rect x="1180" y="${270 + y}" width="120" height="90" fill="${INK}"/>`) +
          `<path d="M${k ? 1020 : 980} ${320 + y}H1500" stroke="${INK}" stroke-width="12"/><text x="90" y="${180 + y}" font-family="sans-serif" font-size="48" fill="${INK}">${k === 0 ? '1,120' : '1,085'}</text>`,
      )
      .join(''),
  share: () => {
    const parts = [4.1, 2.3, 1.7, 1.1, 0.8];
    const tints = [DEEP, WARM, GRASS, WATER, INK];
    let from = 0;
    return (
      `<rect width="${W}" height="${H}" fill="${PAPER}"/>` +
      parts
        .map((part, i) => {
          const a = (from / 10) * Math.PI * 2;
          from += part;
          const b = (from / 10) * Math.PI * 2;
          return `<path d="M800 500L${800 + 380 * Math.sin(a)} ${500 - 380 * Math.cos(a)}A380 380 0 ${part > 5 ? 1 : 0} 1 ${800 + 380 * Math.sin(b)} ${500 - 380 * Math.cos(b)}Z" fill="${tints[i]}" stroke="${PAPER}" stroke-width="8"/>`;
        })
        .join('')
    );
  },
  votes: (r) =>
    `<rect width="${W}" height="${H}" fill="${PAPER}"/>` +
    range(12)
      .map((i) => {
        const h = i % 2 ? 480 + r() * 160 : 110 + r() * 50;
        return `<rect x="${120 + i * 115}" y="${860 - h}" width="80" height="${h}" fill="${i % 2 ? WARM : DEEP}"/>`;
      })
      .join('') +
    `<path d="M100 860H1520" ${line}/>`,
  reserve: (r) => {
    let vote = 60;
    const a: [number, number][] = range(13).map((i) => [140 + i * 110, 820 - i * 48 - r() * 10]);
    const b: [number, number][] = range(13).map((i) => {
      vote = i % 4 === 3 ? 10 + r() * 20 : vote + 60 + r() * 50;
      return [140 + i * 110, 820 - vote];
    });
    return (
      `<rect width="${W}" height="${H}" fill="${PAPER}"/><path d="M140 140V860H1500" ${line}/>` +
      path(a, `fill="none" stroke="${DEEP}" stroke-width="12"`) +
      path(b, `fill="none" stroke="${WARM}" stroke-width="12" stroke-dasharray="24 18"`)
    );
  },
  oven: () =>
    `<rect width="${W}" height="${H}" fill="#e6dcc8"/><path d="M240 820V560Q240 180 800 180T1360 560V820Z" fill="#a9714a" stroke="${INK}" stroke-width="10"/><path d="M360 760Q360 320 800 320T1240 760Z" fill="#2a1c18"/><rect x="320" y="760" width="960" height="50" fill="#7a4b32"/><path d="M1120 330L1190 90H1290L1240 400" fill="#2a1c18" stroke="${INK}" stroke-width="8"/><path d="M620 750q60 -160 120 -40q40 -180 120 -20q60 -120 100 60Z" fill="#e0903c"/><rect x="1085" y="330" width="170" height="24" fill="${WATER}"/>`,
  loaf: () =>
    `<rect width="${W}" height="${H}" fill="#e9e0cd"/>` +
    [430, 1170]
      .map(
        (x, k) =>
          `<ellipse cx="${x}" cy="560" rx="300" ry="${k ? 190 : 250}" fill="#8a5a34"/><ellipse cx="${x}" cy="575" rx="262" ry="${k ? 150 : 212}" fill="#c99a63"/>${k ? `<ellipse cx="${x}" cy="470" rx="190" ry="44" fill="#5d3a22"/>` : ''}` +
          range(40)
            .map(
              (i) =>
                `<circle cx="${x - 200 + ((i * 67) % 400)}" cy="${k ? 530 + ((i * 31) % 120) : 430 + ((i * 53) % 270)}" r="${5 + (i % 4) * 3}" fill="#a87a48"/>`,
            )
            .join(''),
      )
      .join(''),
  tide: () =>
    `<rect width="${W}" height="${H}" fill="${PAPER}"/>` +
    [0, 9]
      .map((shift, k) =>
        path(
          range(561).map((i) => [
            100 + i * 2.5,
            500 + shift - Math.sin(i / 10.3) * (170 + 110 * Math.cos(i / 89)) - (k ? Math.sin(i / 21) * 12 : 0),
          ]),
          `fill="none" stroke="${k ? WARM : DEEP}" stroke-width="${k ? 4 : 7}"`,
        ),
      )
      .join('') +
    `<path d="M100 500H1500" stroke="${INK}" stroke-width="2" stroke-dasharray="8 10"/>`,
  rocks: () =>
    `<rect width="${W}" height="${H}" fill="#e3e6dc"/>` +
    range(4)
      .map((i) => {
        const x = (i % 2) * 780 + 40;
        const y = Math.floor(i / 2) * 490 + 20;
        return `<g transform="translate(${x} ${y})"><rect width="740" height="460" fill="${PAPER}" stroke="${INK}" stroke-width="4"/><path d="M0 ${120 + i * 6}q200 60 300 180t180 160" fill="none" stroke="${DEEP}" stroke-width="6"/><path d="M740 60q-160 60 -200 200t60 200" fill="none" stroke="${DEEP}" stroke-width="6"/>${i === 2 ? `<text x="470" y="250" font-size="44" font-family="serif" fill="${INK}">4</text>` : `<path d="M${i === 1 ? 470 : 410} 200v60M${i === 1 ? 440 : 380} 230h60" stroke="${INK}" stroke-width="8"/>`}</g>`;
      })
      .join(''),
  rose: (r) =>
    `<rect width="${W}" height="${H}" fill="${PAPER}"/><path d="M980 120q90 60 60 150t80 130q40 120 -60 190t-70 180l-150 60" fill="none" stroke="${DEEP}" stroke-width="6"/>` +
    range(32)
      .map((k) => {
        const a = (k / 32) * Math.PI * 2;
        const long = k % 8 === 0 ? 330 : k % 4 === 0 ? 250 : k % 2 === 0 ? 180 : 120;
        return `<path d="M640 540L${640 + Math.cos(a + 0.12) * 60} ${540 + Math.sin(a + 0.12) * 60}L${640 + Math.cos(a) * long} ${540 + Math.sin(a) * long}L${640 + Math.cos(a - 0.12) * 60} ${540 + Math.sin(a - 0.12) * 60}Z" fill="${k % 2 === 0 ? INK : WATER}"/>`;
      })
      .join('') +
    `<circle cx="640" cy="540" r="46" fill="${PAPER}" stroke="${INK}" stroke-width="5"/><path d="M640 150q-46 50 0 120q46 -70 0 -120" fill="${WARM}"/>` +
    range(7)
      .map(
        () =>
          `<text x="${1120 + r() * 400}" y="${120 + r() * 800}" font-size="40" font-family="serif" fill="${INK}">22</text>`,
      )
      .join(''),
  kite: (r) =>
    `<rect width="${W}" height="${H}" fill="${PAPER}"/><path d="M160 100V860H1480" ${line}/><path d="M160 860L1440 140" stroke="${WATER}" stroke-width="5"/>` +
    range(34)
      .map(() => {
        const t = r();
        return `<circle cx="${180 + t * 1240}" cy="${850 - t * 700 + (r() - 0.5) * 120}" r="17" fill="${GRASS}" stroke="${PAPER}" stroke-width="4"/>`;
      })
      .join(''),
  chorus: () =>
    `<rect width="${W}" height="${H}" fill="#2b2f45"/><rect y="0" x="1300" width="300" height="${H}" fill="#d88a5a" opacity=".5"/>` +
    [
      [62, 51],
      [48, 40],
      [55, 49],
      [70, 70],
    ]
      .map(
        ([shore = 0, inland = 0], i) =>
          `<rect x="${1300 - shore * 16}" y="${140 + i * 200}" width="${shore * 16}" height="52" fill="#9fc3c7"/><rect x="${1300 - inland * 16}" y="${204 + i * 200}" width="${inland * 16}" height="52" fill="#c7b58a"/>`,
      )
      .join(''),
  stars: (r) =>
    `<rect width="${W}" height="${H}" fill="#0e1020"/>` +
    range(4)
      .map(
        (k) =>
          `<rect x="${k * 400}" width="396" height="${H}" fill="rgb(${[88, 34, 40, 16][k]},${[74, 34, 38, 18][k]},${[60, 52, 52, 34][k]})"/>` +
          range([40, 170, 140, 300][k] ?? 0)
            .map(
              () => `<circle cx="${k * 400 + r() * 390}" cy="${r() * H}" r="${0.8 + r() * r() * 5}" fill="#f4efe0"/>`,
            )
            .join(''),
      )
      .join(''),
  ferry: () =>
    `<rect width="${W}" height="${H}" fill="#c9d6d8"/><rect y="640" width="${W}" height="360" fill="${DEEP}"/><path d="M240 560H1340L1260 720H330Z" fill="#f3eee2" stroke="${INK}" stroke-width="8"/><rect x="420" y="400" width="560" height="160" fill="#f8f4ea" stroke="${INK}" stroke-width="8"/><rect x="860" y="280" width="180" height="120" fill="#f8f4ea" stroke="${INK}" stroke-width="8"/>` +
    range(6)
      .map((i) => `<rect x="${450 + i * 88}" y="440" width="58" height="56" rx="10" fill="${WATER}"/>`)
      .join('') +
    `<rect x="620" y="270" width="90" height="130" fill="${WARM}"/><path d="M0 700q80 -30 160 0t160 0t160 0t160 0t160 0t160 0t160 0t160 0t160 0t160 0" fill="none" stroke="#9fb9bd" stroke-width="10"/>`,
  lamps: () =>
    `<rect width="${W}" height="${H}" fill="#1b2030"/>` +
    [420, 1180]
      .map(
        (x, k) =>
          `<path d="M${x - 330} 900L${x} 330L${x + 330} 900Z" fill="${k ? '#e0a24a' : '#eef2f4'}" opacity="${k ? 0.35 : 0.4}"/><rect x="${x - 12}" y="330" width="24" height="570" fill="#0c0f18"/><circle cx="${x}" cy="320" r="44" fill="${k ? '#f0b95a' : '#ffffff'}"/>`,
      )
      .join('') +
    `<rect y="900" width="${W}" height="100" fill="#0c0f18"/>`,
  nails: () =>
    `<rect width="${W}" height="${H}" fill="#f4f1ea"/>` +
    range(3)
      .map(
        (i) =>
          `<g transform="translate(220 ${250 + i * 230}) rotate(${i * 3 - 3})"><rect x="0" y="-42" width="26" height="84" rx="8" fill="#a87943"/><path d="M26 -14H1080L1150 0L1080 14H26Z" fill="#bd8c52"/>${range(
            22,
          )
            .map((k) => `<path d="M${320 + k * 32} -18v36" stroke="#8a5f31" stroke-width="7"/>`)
            .join('')}</g>`,
      )
      .join(''),
  twine: () =>
    `<rect width="${W}" height="${H}" fill="#f4f1ea"/>` +
    range(26)
      .map(
        (i) =>
          `<ellipse cx="800" cy="500" rx="${560 - i * 6}" ry="${260 - i * 6}" fill="none" stroke="${i % 2 ? '#6b4d2e' : '#8a683f'}" stroke-width="9" transform="rotate(${i * 1.4} 800 500)"/>`,
      )
      .join(''),
  tin: () =>
    `<rect width="${W}" height="${H}" fill="#f4f1ea"/><rect x="560" y="240" width="480" height="560" fill="#9aa0a0"/><ellipse cx="800" cy="240" rx="240" ry="60" fill="#c2c7c6"/><ellipse cx="800" cy="800" rx="240" ry="60" fill="#9aa0a0"/><rect x="560" y="400" width="480" height="250" fill="${DEEP}"/><path d="M640 470H960M640 530H960M640 590H860" stroke="${PAPER}" stroke-width="16"/>`,
  motor: () =>
    `<rect width="${W}" height="${H}" fill="#f4f1ea"/><rect x="420" y="330" width="560" height="340" rx="60" fill="${DEEP}"/>` +
    range(9)
      .map((i) => `<rect x="${470 + i * 54}" y="310" width="22" height="380" fill="${WATER}"/>`)
      .join('') +
    `<rect x="980" y="470" width="430" height="60" fill="#9aa0a0"/><rect x="1120" y="430" width="90" height="140" fill="${WARM}"/><path d="M460 700H940V770H460Z" fill="${INK}"/>`,
  coil: () =>
    `<rect width="${W}" height="${H}" fill="#f4f1ea"/><circle cx="800" cy="500" r="380" fill="${DEEP}"/><circle cx="800" cy="500" r="150" fill="#f4f1ea"/>` +
    range(18)
      .map(
        (i) =>
          `<rect x="785" y="150" width="30" height="170" rx="14" fill="${WARM}" transform="rotate(${i * 20} 800 500)"/>`,
      )
      .join('') +
    `<circle cx="800" cy="500" r="60" fill="#9aa0a0"/>`,
  generator: () =>
    `<rect width="${W}" height="${H}" fill="#f4f1ea"/><path d="M380 330H1220V780H380Z" fill="#dcd3c0" stroke="${INK}" stroke-width="8"/><rect x="470" y="430" width="340" height="270" fill="${INK}"/><rect x="840" y="470" width="280" height="200" rx="40" fill="${DEEP}"/>` +
    range(4)
      .map((i) => `<path d="M${500 + i * 190} 780v60" stroke="${WARM}" stroke-width="26"/>`)
      .join('') +
    `<path d="M420 250L1260 190L1280 240L440 300Z" fill="#c9bfa8" stroke="${INK}" stroke-width="6"/>`,
  battery: () =>
    `<rect width="${W}" height="${H}" fill="#f4f1ea"/><rect x="270" y="230" width="1060" height="560" rx="24" fill="${INK}"/>` +
    range(12)
      .map(
        (i) =>
          `<rect x="${320 + (i % 4) * 245}" y="${270 + Math.floor(i / 4) * 165}" width="225" height="145" rx="12" fill="${i % 3 === 1 ? GRASS : DEEP}"/>`,
      )
      .join('') +
    `<rect x="270" y="480" width="1060" height="40" fill="${WARM}"/>`,
};

const kept = new Map<string, Promise<Buffer>>();

/**
 * A figure as a file.
 *
 * @param width in pixels; the figure is 8 by 5
 * @returns undefined for a name that has no figure
 */
export function drawing(name: string, width: number, format: 'png' | 'jpeg'): Promise<Buffer> | undefined {
  const figure = FIGURES[name];
  if (!figure) return undefined;
  const key = `${name}-${width}.${format}`;
  const known = kept.get(key);
  if (known) return known;
  const seed = Array.from(name).reduce((sum, char) => sum * 31 + char.charCodeAt(0), 7);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${W} ${H}" width="${width}">${figure(numbers(seed))}</svg>`;
  const made = sharp(Buffer.from(svg)).resize({ width }).toFormat(format, { quality: 82 }).toBuffer();
  kept.set(key, made);
  return made;
}
