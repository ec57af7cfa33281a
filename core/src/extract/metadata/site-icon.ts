import { attribute, type PageElement } from '../page/page-tree';

/** In pixels: what a row shows, on a screen of three to the point. */
const WANTED = 48;
/** Where no size is said: what touch icons are made for (common practice), and what icons were for long. */
const UNSAID = { touch: 180, icon: 16 };

interface Icon {
  href: string;
  pixels: number;
}

/**
 * The icon that a page gives for its site: of those that it links to, the smallest that is large enough for a row, else the
 * largest (HTML Living Standard, link type "icon" and its attribute `sizes`; `apple-touch-icon` by common practice).
 * Of two that are as large the one that is no ICO file.
 *
 * @returns its address as the page writes it; null when there is none
 */
export function siteIconOf(elements: readonly PageElement[]): string | null {
  const icons = elements.flatMap((each) => iconOf(each) ?? []);
  const enough = icons.filter(({ pixels }) => pixels >= WANTED).sort((a, b) => a.pixels - b.pixels);
  const best = enough[0] ?? icons.sort((a, b) => b.pixels - a.pixels)[0];
  return best?.href ?? null;
}

function iconOf(element: PageElement): Icon | null {
  if (element.tagName !== 'link') return null;
  const href = attribute(element, 'href')?.trim();
  const kinds = new Set(attribute(element, 'rel')?.toLowerCase().split(/\s+/));
  const isTouch = kinds.has('apple-touch-icon') || kinds.has('apple-touch-icon-precomposed');
  if (!href || !(isTouch || kinds.has('icon'))) return null;
  const type = attribute(element, 'type')?.toLowerCase() ?? '';
  const isIco = type.includes('icon') || (type === '' && /\.ico(?:[?#]|$)/i.test(href));
  const sizes = attribute(element, 'sizes')?.toLowerCase() ?? '';
  const said = [...sizes.matchAll(/\b([1-9]\d*)x[1-9]\d*\b/g)].map(([, width]) => Number(width));
  if (said.length > 0) return { href, pixels: Math.max(...said) - (isIco ? 0.5 : 0) };
  // A drawing has every size.
  const isDrawing = /\bany\b/.test(sizes) || type === 'image/svg+xml' || /\.svg(?:[?#]|$)/i.test(href);
  return { href, pixels: isDrawing ? WANTED : isTouch ? UNSAID.touch : UNSAID.icon };
}
