import { coloursOf, type Raster } from '@dorvel/core/colour';
import { featuresOf, kindOf, likenessOf, type PictureFeatures, skewOf, withoutShapes } from '@dorvel/core/looking';
import type { PictureSeen, RecognisedWord } from '@dorvel/core/model';
import { coveredBy, type FoundBlocks, isUnsure, recognisedWords } from '@dorvel/core/picture';
import { baseLanguage, languageOf } from '@dorvel/core/text';
import sharp, { type Sharp } from 'sharp';
import { isReadLanguage, type Layout, type ReadLanguage, recognise } from './recognise';

/** A picture to be looked at. */
export interface ToLookAt {
  bytes: Uint8Array;
  /** Of the page that it is from; null when it is not known. */
  language: string | null;
}

/** What was seen in a picture. */
export interface Looked {
  seen: PictureSeen;
  words: RecognisedWord[];
  /** Of its words, as far as it can be told. */
  language: string | null;
}

const COLOURS_SIDE = 128;
const FEATURES_SIDE = 400;
const SKEW_WIDTH = 640;
/** So many words are a page's. */
const OF_A_PAGE = 40;
/** No chart or map has so many letters that stand apart (OF_A_PAGE words would have been read in them as a page), and no sign. */
const MOST_PIECES = { chart: 1200, sign: 400 } as const;
/** What is smaller than this is smoothed away in a grainy picture, in pixels. */
const GRAIN = 5;
const lettersIn = (words: readonly RecognisedWord[]) =>
  words.reduce((sum, { text, sure }) => sum + (text.length * sure) / 100, 0);
/** Letters are read best when they are about 30 pixels high: what is small is made larger, what is large smaller. */
const READ = { least: 1400, most: 2400 } as const;

sharp.concurrency(1);
sharp.cache(false);

/** Looks at a picture: its colours, its kind, and the words that stand in it. */
export async function lookAt({ bytes, language }: ToLookAt): Promise<Looked> {
  const picture = Buffer.from(bytes);
  const words = await wordsIn(picture, language);
  const features = await measured(picture, words.words);
  const small = await raster(picture, COLOURS_SIDE, 'cubic');
  return {
    seen: {
      colours: coloursOf(small),
      ...kindOf(features),
      likeness: likenessOf(small),
      wordCount: words.words.length,
      unsureCount: words.words.filter(isUnsure).length,
    },
    ...words,
  };
}

/**
 * What is measured in a picture to tell its kind by.
 *
 * @public measured by bench/picture-kinds.mjs
 */
export async function measured(picture: Buffer, words: readonly RecognisedWord[]): Promise<PictureFeatures> {
  return featuresOf(await raster(picture, FEATURES_SIDE, 'nearest'), coveredBy(words));
}

async function raster(picture: Buffer, side: number, kernel: 'cubic' | 'nearest'): Promise<Raster> {
  const { data, info } = await sharp(picture)
    .flatten({ background: '#ffffff' })
    .toColourspace('srgb')
    .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true, kernel, fastShrinkOnLoad: false })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  // A picture of greys alone has one channel.
  const rgb = info.channels === 3 ? data : Buffer.from([...data].flatMap((grey) => [grey, grey, grey]));
  return { data: rgb, width: info.width, height: info.height };
}

/**
 * The words in a picture, read in the language of its page, else in English; and once more where what was read is plainly in
 * another.
 *
 * @public measured by bench/picture-words.mjs
 */
export async function wordsIn(picture: Buffer, language: string | null): Promise<Pick<Looked, 'words' | 'language'>> {
  const page = await prepared(picture);
  const read = async (by: ReadLanguage) => {
    const as = async (bytes: Buffer, layout: Layout) =>
      recognisedWords(upright(await recognise(bytes, by, layout), page), page.size);
    const ofPage = await as(page.bytes, 'page');
    // What stands in a diagram, a chart or on a sign is no page: its words are looked for one by one, in its shapes too.
    const alone = ofPage.length >= OF_A_PAGE ? null : await wordsAlone(page.bytes);
    const scattered = alone ? await as(alone, 'scattered') : [];
    const words = lettersIn(scattered) > lettersIn(ofPage) ? scattered : ofPage;
    return { words, language: languageOf(words.map(({ text }) => text).join(' '), null) };
  };
  const base = baseLanguage(language);
  const first = isReadLanguage(base) ? base : 'en';
  const once = await read(first);
  if (once.language === null || once.language === first || !isReadLanguage(once.language)) return once;
  return read(once.language);
}

/**
 * A picture without its shapes; of a grainy one what may be letters alone, for a sign may stand in it. Null where what is left is a
 * texture, as grass is: to look for words in each of its pieces takes longer than all the rest, and finds none.
 */
async function wordsAlone(bytes: Buffer): Promise<Buffer | null> {
  const drawn = async (picture: Sharp, what: 'painted' | 'letters', most: number) => {
    const { data, info } = await picture.toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
    const { width, height } = info;
    const alone = withoutShapes({ data, width, height });
    if (alone.pieces > most) return null;
    return sharp(alone[what], { raw: { width, height, channels: 1 } })
      .png({ compressionLevel: 1 })
      .toBuffer();
  };
  return (
    (await drawn(sharp(bytes), 'painted', MOST_PIECES.chart)) ??
    drawn(sharp(bytes).median(GRAIN), 'letters', MOST_PIECES.sign)
  );
}

interface Prepared {
  bytes: Buffer;
  /** Of the picture before it was turned, in pixels. */
  size: { width: number; height: number };
  /** Of the picture that is read. */
  turned: { width: number; height: number; degrees: number };
}

/** A picture made ready to be read: in greys, of a size for it, its lines level. */
async function prepared(picture: Buffer): Promise<Prepared> {
  const { width, height } = await sharp(picture).metadata();
  const long = Math.max(width, height);
  const scale = long > READ.most ? READ.most / long : long < READ.least ? Math.min(3, READ.least / long) : 1;
  const grey = sharp(picture)
    .flatten({ background: '#ffffff' })
    .greyscale()
    .resize({ width: Math.max(1, Math.round(width * scale)), kernel: 'cubic' })
    .normalise({ lower: 1, upper: 99 });
  const { data, info } = await grey.png({ compressionLevel: 1 }).toBuffer({ resolveWithObject: true });
  const small = await sharp(data)
    .resize({ width: SKEW_WIDTH, withoutEnlargement: true })
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const degrees = skewOf({ data: small.data, width: small.info.width, height: small.info.height });
  const size = { width: info.width, height: info.height };
  if (degrees === 0) return { bytes: data, size, turned: { ...size, degrees: 0 } };
  const level = await sharp(data)
    .rotate(-degrees, { background: '#ffffff' })
    .png({ compressionLevel: 1 })
    .toBuffer({ resolveWithObject: true });
  return { bytes: level.data, size, turned: { width: level.info.width, height: level.info.height, degrees } };
}

/** Places in the picture that was turned as places in the one before. */
function upright(blocks: FoundBlocks, { size, turned }: Prepared): FoundBlocks {
  if (turned.degrees === 0) return blocks;
  const angle = (turned.degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const back = (x: number, y: number): [number, number] => {
    const [dx, dy] = [x - turned.width / 2, y - turned.height / 2];
    return [size.width / 2 + dx * cos - dy * sin, size.height / 2 + dx * sin + dy * cos];
  };
  return blocks.map((paragraphs) =>
    paragraphs.map((lines) =>
      lines.map((line) =>
        line.map((word) => {
          const [x, y] = back(word.left + word.width / 2, word.top + word.height / 2);
          return { ...word, left: x - word.width / 2, top: y - word.height / 2 };
        }),
      ),
    ),
  );
}
