import { colorsNamed, differenceCiede2000 } from 'culori';
import { colourInWords, colourName, coloursOf, hasColour, readColour } from '.';

/** A picture of bands: so many columns of each colour. */
function bands(...parts: [hex: string, columns: number][]) {
  const width = parts.reduce((sum, [, columns]) => sum + columns, 0);
  const row = parts.flatMap(([hex, columns]) =>
    Array.from({ length: columns }, () => [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16))),
  );
  const height = 10;
  return { data: Uint8Array.from(Array.from({ length: height }, () => row).flat(2)), width, height };
}

describe('the package for colours', () => {
  // Sharma, Wu and Dalal, The CIEDE2000 Color-Difference Formula (2005), table 1; the values from memory.
  it.each([
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
    [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
    [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1],
    [[50, 0, 0], [50, -1, 2], 2.3669],
    [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.5, 0], [61, -5, 29], 22.8977],
    [[50, 2.5, 0], [56, -27, -3], 31.903],
    [[50, 2.5, 0], [58, 24, 15], 19.4535],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
    [[63.0109, -31.0961, -5.8663], [62.8187, -29.7946, -4.0864], 1.263],
    [[61.2901, 3.7196, -5.3901], [61.4292, 2.248, -4.962], 1.8731],
    [[35.0831, -44.1164, 3.7933], [35.0232, -40.0716, 1.5901], 1.8645],
    [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
    [[90.8027, -2.0831, 1.441], [91.1528, -1.6435, 0.0447], 1.4441],
    [[6.7747, -0.2908, -2.4247], [5.8714, -0.0985, -2.2286], 0.6377],
  ])('tells how far %p and %p are apart as was published', (one, other, apart) => {
    const [lab, lab2] = [one, other].map(([l = 0, a = 0, b = 0]) => ({ mode: 'lab65' as const, l, a, b }));
    expect(differenceCiede2000()(lab!, lab2!)).toBeCloseTo(apart, 3);
  });
});

describe('the plain name of a colour', () => {
  // CSS Color 4, 6.1: the keywords that end in a basic colour term. Those that most people would call otherwise are named.
  const DISPUTED: Readonly<Record<string, string>> = {
    // The keyword is a red, and nobody's brown; the two greys that are bluish enough to be seen so; near whites.
    brown: 'red',
    slategray: 'blue',
    darkslategray: 'green',
    lightslategray: 'blue',
    orangered: 'red',
    aliceblue: 'white',
    palevioletred: 'pink',
    mediumvioletred: 'purple',
    navajowhite: 'yellow',
    antiquewhite: 'yellow',
    floralwhite: 'white',
    ghostwhite: 'white',
    yellowgreen: 'green',
    darkseagreen: 'green',
  };
  const ENDS = /(black|white|gray|red|orange|yellow|green|blue|purple|pink|brown)$/;
  const keywords = Object.entries(colorsNamed as Record<string, number>).flatMap(([keyword, value]) => {
    const term = ENDS.exec(keyword)?.[1]?.replace('gray', 'grey');
    const hex = `#${value.toString(16).padStart(6, '0')}`;
    return term ? [{ keyword, hex, terms: [term, DISPUTED[keyword]] }] : [];
  });

  it('is the one in the keyword of CSS, for nine in ten of them', () => {
    expect(keywords.length).toBeGreaterThan(60);
    const wrong = keywords.filter(({ hex, terms }) => !terms.includes(colourName(hex).term));
    expect(wrong.map(({ keyword, hex }) => `${keyword}: ${colourName(hex).term}`).sort()).toEqual([
      'darkslateblue: purple',
      'greenyellow: green',
      'lightseagreen: blue',
      'mediumslateblue: purple',
      'sandybrown: orange',
      'slateblue: purple',
    ]);
    expect(wrong.length / keywords.length).toBeLessThan(0.1);
  });

  it.each([
    ['#000000', 'black'],
    ['#ffffff', 'white'],
    ['#808080', 'grey'],
    ['#d3d3d3', 'light grey'],
    ['#404040', 'dark grey'],
    ['#ff0000', 'red'],
    ['#8b0000', 'dark red'],
    ['#ffa500', 'orange'],
    ['#ffff00', 'yellow'],
    ['#008000', 'green'],
    ['#006400', 'dark green'],
    ['#90ee90', 'light green'],
    ['#0000ff', 'blue'],
    ['#00008b', 'dark blue'],
    ['#add8e6', 'light blue'],
    ['#800080', 'purple'],
    ['#ffc0cb', 'pink'],
    ['#8b4513', 'brown'],
  ])('of %s is %s', (hex, name) => {
    expect(colourInWords(colourName(hex))).toBe(name);
  });
});

describe('the colours of a picture', () => {
  it('are told by share, the most first, with their names', () => {
    const found = coloursOf(bands(['#008080', 60], ['#f5f0e0', 30], ['#b22222', 10]));
    expect(found.map(({ name }) => name)).toEqual(['green', 'white', 'red']);
    expect(found.map(({ share }) => share)).toEqual([0.6, 0.3, 0.1]);
    expect(found[0]?.hex).toBe('#008080');
  });

  it('are five at most, and what looks alike is one', () => {
    const many = coloursOf(
      bands(
        ...['#ff0000', '#00ff00', '#0000ff', '#ffff00', '#ff00ff', '#00ffff', '#ffffff'].map(
          (hex) => [hex, 10] as [string, number],
        ),
      ),
    );
    expect(many).toHaveLength(5);
    expect(coloursOf(bands(['#336699', 50], ['#34679b', 50]))).toHaveLength(1);
    expect(coloursOf({ data: new Uint8Array(), width: 0, height: 0 })).toEqual([]);
  });

  it('are the same each time', () => {
    const picture = bands(['#336699', 31], ['#996633', 29], ['#cccc99', 40]);
    expect(coloursOf(picture)).toEqual(coloursOf(picture));
  });
});

describe('a colour that is asked for', () => {
  const teal = coloursOf(bands(['#0a7f80', 70], ['#ffffff', 30]));
  const has = (written: string) => {
    const wanted = readColour(written);
    return wanted && hasColour(teal, wanted);
  };

  it('is a basic term, a keyword of CSS, or a colour itself', () => {
    expect(['white', 'teal', '#008080', '088', 'green'].map(has)).toEqual([true, true, true, true, true]);
    expect(['red', 'crimson', '#ff0000', 'dark white', 'light green'].map(has)).toEqual([
      false,
      false,
      false,
      false,
      false,
    ]);
    expect(['beautiful', '', '#12345'].map(readColour)).toEqual([null, null, null]);
  });

  it('is found in all its shades, unless one is named', () => {
    const navy = coloursOf(bands(['#000080', 100]));
    const asked = (written: string) => hasColour(navy, readColour(written)!);
    expect([asked('blue'), asked('dark blue'), asked('dark-blue'), asked('light blue')]).toEqual([
      true,
      true,
      true,
      false,
    ]);
  });

  it('is not found where there is hardly any of it', () => {
    const few = coloursOf(bands(['#ffffff', 98], ['#ff0000', 2]));
    expect(few.map(({ name }) => name)).toEqual(['white', 'red']);
    expect(hasColour(few, readColour('red')!)).toBe(false);
  });
});
