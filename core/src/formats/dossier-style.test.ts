import { DossierAccent, DossierDesign } from '../model';
import { dossierStyle, PAGE_ACCENTS, PAGE_PALETTES } from '.';

/** Relative luminance and contrast ratio as WCAG 2.2 defines them. */
function luminance(hex: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const channel = parseInt(hex.slice(at, at + 2), 16) / 255;
    return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
function contrast(a: string, b: string): number {
  const [light = 0, dark = 0] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (light + 0.05) / (dark + 0.05);
}

describe.each(['day', 'night'] as const)('a page by %s', (time) => {
  const { ground, raised, ink, soft } = PAGE_PALETTES[time];

  it.each(DossierAccent.options)('can be read in %s (WCAG 2.2, 1.4.3)', (name) => {
    const { accent, on } = PAGE_ACCENTS[name][time];
    for (const words of [ink, soft, accent])
      for (const behind of [ground, raised]) expect(contrast(words, behind)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(on, accent)).toBeGreaterThanOrEqual(4.5);
  });
});

it.each(DossierDesign.options)('a page as %s asks nobody else for anything', (design) => {
  const style = dossierStyle({ design, accent: 'plum', typeface: 'literata' });
  expect(style).not.toMatch(/url\(|@import|<\//);
  expect(style.match(/\{/g)?.length).toBe(style.match(/\}/g)?.length);
});
