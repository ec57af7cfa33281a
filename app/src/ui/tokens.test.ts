import { readFileSync } from 'node:fs';
import path from 'node:path';
import tokens from './tokens';

/** Relative luminance and contrast ratio as WCAG 2.2 defines them. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const channel = parseInt(hex.slice(at, at + 2), 16) / 255;
    return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

it('measures contrast as WCAG 2.2 does', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 5);
  // A pair that the WCAG understanding documents name as just passing AA.
  expect(contrast('#767676', '#FFFFFF')).toBeCloseTo(4.54, 2);
});

/** What WCAG 2.2 asks of text (1.4.3, and 1.4.6 where more is wanted) and of what is not text (1.4.11). */
describe.each([
  ['day', 4.5],
  ['night', 4.5],
  ['dayOfMore', 7],
  ['nightOfMore', 7],
] as const)('in the colours %s', (name, enough) => {
  const theme = tokens[name];
  const grounds = [theme.ground, theme.raised, theme.sunken];

  it.each(['ink', 'soft', 'accent', 'brick', 'moss', 'ochre'] as const)('%s can be read on every ground', (text) => {
    for (const ground of grounds) expect(contrast(theme[text], ground)).toBeGreaterThanOrEqual(enough);
  });

  it('what is marked, or spoken, can be read, and its underline can be seen', () => {
    const tints = (['key', 'question', 'quote', 'to-do', 'doubt'] as const).map((kind) => theme[`mark-${kind}`]);
    for (const tint of [...tints, theme.spoken]) expect(contrast(theme.ink, tint)).toBeGreaterThanOrEqual(enough);
    for (const tint of tints) expect(contrast(theme.ochre, tint)).toBeGreaterThanOrEqual(3);
  });

  it('words stand out from the accent, and ground from ink', () => {
    expect(contrast(theme['on-accent'], theme.accent)).toBeGreaterThanOrEqual(enough);
    expect(contrast(theme.ground, theme.ink)).toBeGreaterThanOrEqual(enough);
  });

  if (enough > 4.5)
    it('lines can be seen', () => {
      for (const ground of grounds) expect(contrast(theme.line, ground)).toBeGreaterThanOrEqual(3);
    });
});

describe('faces', () => {
  const style = readFileSync(path.join(__dirname, '../../global.css'), 'utf8');

  // A family of its own in a rule forgets those for other scripts, and a device without them shows boxes.
  it('are named once, with those for other scripts', () => {
    for (const face of [tokens.fonts.ui, tokens.fonts.read])
      expect(face).toEqual(expect.arrayContaining(['Noto Sans JP Variable', 'Noto Naskh Arabic Variable']));
    expect(style).toContain("--face-read: theme('fontFamily.read')");
    expect(style.match(/ Variable['"]/g)).toBeNull();
  });
});
