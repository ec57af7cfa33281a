import type { Root } from 'hast';
import { z } from 'zod';
import { ContentHash, Id, Instant } from './ids';
import { MAX_PICTURES, RecognisedPicture } from './picture';

const TextNode = z.object({ type: z.literal('text'), value: z.string() });
const PropertyValue = z.union([z.string(), z.number(), z.boolean(), z.array(z.string())]);

type LooseNode =
  | z.infer<typeof TextNode>
  | {
      type: 'element';
      tagName: string;
      properties: Record<string, z.infer<typeof PropertyValue>>;
      children: LooseNode[];
    };

const ElementNode: z.ZodType<LooseNode> = z.lazy(() =>
  z.object({
    type: z.literal('element'),
    tagName: z.string().regex(/^[a-z][a-z0-9-]*$/),
    properties: z.record(z.string(), PropertyValue),
    children: z.array(z.union([TextNode, ElementNode])),
  }),
);

/** The clean text: a sanitised hast tree. core/extract makes it and guarantees its shape (see core/text/plain). */
export const ArticleTree = z.object({
  type: z.literal('root'),
  children: z.array(ElementNode),
}) as unknown as z.ZodType<Root>;
export type ArticleTree = Root;

/** What a block of a page is judged by; each speaks for its being text, or against it. */
export const Evidence = z.enum([
  'words',
  'tag',
  'place',
  'rules',
  'names',
  'neighbours',
  'headings',
  'boxes',
  'repetition',
  'stated',
]);
export type Evidence = z.infer<typeof Evidence>;

export const MAX_DOUBTS = 100;

/** A block that was kept although it is not surely text, and what speaks for and against it, the strongest first. */
export const Doubt = z.object({
  /** Its place among the blocks of the tree. */
  at: z.int().min(0),
  speaksFor: z.array(Evidence).max(2),
  speaksAgainst: z.array(Evidence).max(2),
});
export type Doubt = z.infer<typeof Doubt>;

/** The text of a page as it was on a day. Never changes once made, so devices may keep it for ever. */
export const Copy = z.object({
  id: Id,
  itemId: Id,
  madeAt: Instant,
  title: z.string().nullable(),
  language: z.string().nullable(),
  /** Of the tree; copies from before it was thought of have none. */
  hash: ContentHash.nullable().default(null),
  tree: ArticleTree,
  /** Of pictures: the words that stand in them, with their places. The tree has them as paragraphs. */
  recognised: z.array(RecognisedPicture).max(MAX_PICTURES).optional(),
  /** Of a page that was judged line by line: what *Tidy* points out. */
  doubts: z.array(Doubt).max(MAX_DOUBTS).optional(),
});
export type Copy = z.infer<typeof Copy>;
