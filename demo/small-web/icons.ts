import sharp from 'sharp';

const SIDE = 64;
const GROUNDS = ['#35535c', '#7a3b2e', '#5c7a4a', '#2c3440', '#b4763f', '#4b3f63', '#7f9fa6', '#8a6d1f'];
const LIGHT = '#f3eee2';

/** Simple figures, of which each publication has one. */
const FIGURES = [
  '<path d="M8 38q8-10 16 0t16 0 16 0" fill="none" stroke-width="6"/>',
  '<circle cx="32" cy="32" r="15" fill="none" stroke-width="6"/>',
  '<path d="M32 12v32M14 44h36l-8 10H22z" stroke-width="5"/>',
  '<path d="M14 20h36M14 32h28M14 44h20" fill="none" stroke-width="6"/>',
  '<path d="M32 12l6 14 14 6-14 6-6 14-6-14-14-6 14-6z" stroke-width="2"/>',
  '<path d="M16 50V22l16-10 16 10v28z" fill="none" stroke-width="6"/>',
  '<path d="M16 16h32v32H16zM16 32h32" fill="none" stroke-width="6"/>',
];

/** The icon of a publication, as PNG: the same each time. */
export async function iconOf(host: string): Promise<Buffer> {
  const sum = Buffer.from(host).reduce((total, letter, at) => total + letter * (at + 3), 0);
  const ground = GROUNDS[sum % GROUNDS.length];
  const figure = FIGURES[sum % FIGURES.length];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}" height="${SIDE}"><rect width="${SIDE}" height="${SIDE}" rx="14" fill="${ground}"/><g fill="${LIGHT}" stroke="${LIGHT}" stroke-linecap="round" stroke-linejoin="round">${figure}</g></svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}

/** A page with the icon of its site, which every host of the small web has at one place. */
export const withIcon = (html: string): string =>
  html.replace('</title>', `</title><link rel="icon" type="image/png" sizes="${SIDE}x${SIDE}" href="/icon.png">`);
