import type { Root } from 'hast';
import { visit } from 'unist-util-visit';

/** A picture in a text. */
export interface TextPicture {
  /** By which it is kept; see ContentHash. */
  hash: string;
  /** What it shows, as its page says; empty where it says nothing. */
  alt: string;
}

const KEPT = /^\/api\/pictures\/([0-9a-f]{64})\.webp$/;

/** The pictures of a text that the library has, in the order of the text, each once. */
export function picturesInText(tree: Root): TextPicture[] {
  const found = new Map<string, TextPicture>();
  visit(tree, 'element', ({ tagName, properties: { src, alt } }) => {
    const hash = tagName === 'img' && typeof src === 'string' ? KEPT.exec(src)?.[1] : undefined;
    if (hash !== undefined && !found.has(hash)) found.set(hash, { hash, alt: typeof alt === 'string' ? alt : '' });
  });
  return [...found.values()];
}
