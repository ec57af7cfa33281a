import { PictureKind } from '../model';
import { bitsApart } from '../picture';
import { featuresOf, kindOf, likenessOf, skewOf, withoutShapes } from '.';
import { MADE } from './kind-forest-made';

/** A picture drawn point by point. */
function drawn(width: number, height: number, colourAt: (x: number, y: number) => readonly [number, number, number]) {
  const data = new Uint8Array(3 * width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data.set(colourAt(x, y), 3 * (y * width + x));
  return { data, width, height };
}
const NO_TEXT = { covered: 0, words: 0 };
const WHITE = [255, 255, 255] as const;
const BLACK = [0, 0, 0] as const;

/** Mulberry32: the same numbers each time. */
function numbers(seed: number): () => number {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

describe('what is measured in a picture', () => {
  it('of an even one is all flat, all paper, and one colour', () => {
    expect(
      featuresOf(
        drawn(40, 30, () => [20, 120, 200]),
        NO_TEXT,
      ),
    ).toMatchObject({
      flat: 1,
      soft: 0,
      edges: 0,
      straight: 0,
      colours: 1,
      paper: 1,
      strong: 1,
      grey: 0,
    });
  });

  it('of a box are straight edges, of a disc are not', () => {
    const box = featuresOf(
      drawn(100, 100, (x, y) => (x > 20 && x < 80 && y > 20 && y < 80 ? BLACK : WHITE)),
      NO_TEXT,
    );
    const disc = featuresOf(
      drawn(100, 100, (x, y) => (Math.hypot(x - 50, y - 50) < 30 ? BLACK : WHITE)),
      NO_TEXT,
    );
    expect(box.straight).toBeGreaterThan(0.95);
    expect(disc.straight).toBeLessThan(0.5);
    expect([box.colours, box.grey]).toEqual([2, 1]);
  });

  it('of grain and shades is soft', () => {
    const next = numbers(3);
    const photograph = featuresOf(
      drawn(120, 80, (x, y) => [90 + x / 2 + next() * 16, 80 + y + next() * 16, 70 + next() * 16]),
      NO_TEXT,
    );
    expect(photograph.soft).toBeGreaterThan(0.6);
    expect(photograph.flat).toBeLessThan(0.3);
  });

  it('takes how much of it words cover from those that were recognised, and a picture of nothing for one', () => {
    expect(
      featuresOf(
        drawn(10, 10, () => WHITE),
        { covered: 0.3, words: 50 },
      ),
    ).toMatchObject({ text: 0.3, words: 50 });
    expect(featuresOf({ data: new Uint8Array(), width: 0, height: 0 }, NO_TEXT).flat).toBe(0);
  });
});

describe('the kind of a picture', () => {
  const next = numbers(8);
  it('is told with its reasons', () => {
    const soft = drawn(160, 120, (x, y) => [60 + x + next() * 20, 80 + y + next() * 20, 120 + next() * 20]);
    const { kind, why, isGrey } = kindOf(featuresOf(soft, NO_TEXT));
    expect([kind, isGrey]).toEqual(['photograph', false]);
    expect(why.length).toBeGreaterThan(0);
    expect(why.length).toBeLessThanOrEqual(4);
  });

  it('of much text on plain paper is a page', () => {
    const page = drawn(200, 280, (x, y) =>
      y % 12 < 6 && x > 20 && x < 180 && (x * 7 + y * 3) % 5 < 2 ? BLACK : WHITE,
    );
    expect(kindOf(featuresOf(page, { covered: 0.32, words: 220 }))).toMatchObject({
      kind: 'page-of-text',
      isGrey: true,
    });
  });
});

describe('how a picture looks, in bits', () => {
  const scene = (light: number, width: number, height: number) =>
    drawn(width, height, (x, y) => {
      const shade = 128 + 90 * Math.sin((x / width) * 9) * Math.cos((y / height) * 7) + light;
      return [shade, shade, shade].map((part) => Math.max(0, Math.min(255, part))) as unknown as readonly [
        number,
        number,
        number,
      ];
    });

  it('is nearly the same when it is smaller or lighter, and far from another', () => {
    const one = likenessOf(scene(0, 200, 150))!;
    expect(bitsApart(one, likenessOf(scene(12, 100, 75))!)).toBeLessThanOrEqual(6);
    const other = likenessOf(drawn(200, 150, (x, y) => (((x >> 5) + (y >> 5)) % 2 === 0 ? WHITE : BLACK)))!;
    expect(bitsApart(one, other)).toBeGreaterThan(12);
  });

  it('is nothing for what is all of one shade', () => {
    expect(likenessOf(drawn(30, 30, () => [9, 9, 9]))).toBeNull();
  });
});

describe('a picture without its shapes', () => {
  it('has what is small and dark, and not what is connected over much of it', () => {
    const [width, height] = [200, 120];
    const data = new Uint8Array(width * height).fill(250);
    const dark = (left: number, top: number, across: number, down: number) => {
      for (let y = top; y < top + down; y++) data.fill(20, y * width + left, y * width + left + across);
    };
    // A frame, with a letter in it that touches nothing.
    dark(10, 10, 180, 3);
    dark(10, 100, 180, 3);
    dark(10, 10, 3, 93);
    dark(187, 10, 3, 93);
    dark(90, 50, 8, 12);
    const { painted: alone, pieces } = withoutShapes({ data, width, height });
    expect(pieces).toBe(1);
    expect([alone[11 * width + 50], alone[55 * width + 188], alone[55 * width + 94]]).toEqual([255, 255, 20]);
    expect(data[11 * width + 50]).toBe(20);
  });

  it('says how many pieces may be letters: grain and large shapes are none', () => {
    const [width, height] = [400, 300];
    const next = numbers(3);
    const data = new Uint8Array(width * height).fill(255);
    for (let n = 0; n < 600; n++) data[Math.floor(next() * data.length)] = 20;
    expect(withoutShapes({ data, width, height }).pieces).toBe(0);
    for (let y = 10; y < 290; y += 40)
      for (let x = 10; x < 390; x += 20)
        for (let n = 0; n < 84; n++) data[(y + Math.floor(n / 7)) * width + x + (n % 7)] = 20;
    expect(withoutShapes({ data, width, height }).pieces).toBe(7 * 19);
  });
});

describe('how far the lines of a page lean', () => {
  /** Lines of marks, turned by so many degrees. */
  const page = (degrees: number) => {
    const slope = Math.tan((degrees * Math.PI) / 180);
    const [width, height] = [640, 480];
    const data = new Uint8Array(width * height).fill(230);
    for (let y = 0; y < height; y++)
      for (let x = 40; x < width - 40; x++) {
        const row = y - x * slope;
        if (row > 40 && row < 440 && ((row % 24) + 24) % 24 < 9 && (x * 13) % 7 < 4) data[y * width + x] = 30;
      }
    return { data, width, height };
  };

  it.each([-6, -3.2, -1, 0, 0.6, 2.5, 5])('is told of %d degrees', (degrees) => {
    expect(Math.abs(skewOf(page(degrees)) - degrees)).toBeLessThanOrEqual(0.35);
  });

  it('is nothing where there are no lines', () => {
    const next = numbers(5);
    const data = Uint8Array.from({ length: 640 * 480 }, () => (next() < 0.1 ? 0 : 255));
    expect(skewOf({ data, width: 640, height: 480 })).toBe(0);
    expect(skewOf({ data: new Uint8Array(100).fill(255), width: 10, height: 10 })).toBe(0);
  });
});

describe('the forest that tells kinds', () => {
  const { features, kinds, trees } = JSON.parse(MADE) as {
    features: string[];
    kinds: string[];
    trees: { feature: number[]; upTo: number[]; right: number[]; share: number[][] }[];
  };

  it('is whole: each question leads on, each node has a share for each kind, and they are hundredths', () => {
    expect(kinds.map((kind) => PictureKind.parse(kind))).toEqual(kinds);
    for (const { feature, upTo, right, share } of trees) {
      expect([upTo.length, right.length, share.length]).toEqual(Array(3).fill(feature.length));
      feature.forEach((of, at) => {
        if (of >= 0) expect([of < features.length, (right[at] ?? 0) > at + 1]).toEqual([true, true]);
        const sum = share[at]?.reduce((a, b) => a + b, 0) ?? 0;
        expect(Math.abs(sum - 100)).toBeLessThanOrEqual(kinds.length);
        expect(share[at]).toHaveLength(kinds.length);
      });
    }
  });

  it('tells what spoke for a kind among what is told of a picture, at most four, each with how much there is', () => {
    const of = (text: number) => ({
      ...{
        flat: 0.9,
        soft: 0.02,
        colours: 4,
        paper: 0.8,
        straight: 0.9,
        long: 0.7,
        thin: 0.6,
        middle: 0.02,
        ground: 1,
      },
      ...{ edges: 0.1, strong: 0.05, grey: 0.9, text, words: 6 },
    });
    const { kind, why } = kindOf(of(0.03));
    expect(kind).toBe('diagram');
    expect(why.length).toBeGreaterThan(0);
    for (const reason of why) expect(reason.amount).toBe((of(0.03) as Record<string, number>)[reason.of]);
    // Full of words: a screen, by the questions that say so.
    expect(kindOf(of(0.09))).toMatchObject({
      kind: 'screenshot',
      why: [{ of: 'long' }, { of: 'soft' }, { of: 'text' }],
    });
  });
});
