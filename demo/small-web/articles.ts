import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import matter from 'gray-matter';
import { z } from 'zod';

const optional = z
  .string()
  .nullish()
  .transform((value) => value ?? '');
const FrontMatter = z.object({
  publication: z.string(),
  title: z.string(),
  author: optional,
  daysAgo: z.number(),
  picture: optional,
  caption: optional,
  standfirst: optional,
  price: z.number().optional(),
  rating: z.number().optional(),
  reviews: z.number().optional(),
  sku: z.string().optional(),
  daily: z.boolean().default(false),
  /** What the page states in its data, beside its text. */
  recipe: z.boolean().default(false),
  event: z.boolean().default(false),
  book: z.boolean().default(false),
  video: z.boolean().default(false),
  /** Where a page that script builds has its text. */
  script: z.enum(['state', 'linked']).optional(),
  language: optional,
});

export type WebArticle = z.infer<typeof FrontMatter> & { slug: string; markdown: string; publishedAt: Date };

const DAY_MS = 24 * 60 * 60 * 1000;

/** The articles of the small web, from their files. Dates are relative to today, so that the demo stays fresh. */
export function readArticles(): WebArticle[] {
  const folder = path.join(import.meta.dirname, 'texts');
  return readdirSync(folder)
    .filter((name) => name.endsWith('.md'))
    .sort()
    .map((name) => {
      const { data, content } = matter(readFileSync(path.join(folder, name), 'utf8'));
      const front = FrontMatter.parse(data);
      const morning = new Date(Math.floor(Date.now() / DAY_MS) * DAY_MS + 7 * 60 * 60 * 1000);
      return {
        ...front,
        slug: name.slice(0, -3),
        markdown: content.trim(),
        publishedAt: new Date(morning.getTime() - front.daysAgo * DAY_MS),
      };
    });
}
