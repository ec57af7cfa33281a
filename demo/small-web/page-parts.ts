import { marked } from 'marked';
import type { WebArticle } from './articles';

/** One publication of the small web: a host, a name and a way of writing its pages, clutter and all. */
export interface Publication {
  /** The first label of its host. */
  host: string;
  name: string;
  /** Where its articles live. */
  path(slug: string): string;
  /**
   * @param more of the same publication
   * @param page counted from 1, of an article that is cut into several
   */
  page(article: WebArticle, more: WebArticle[], page: number): string;
}

export const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
export const body = (article: WebArticle) => marked.parse(article.markdown, { async: false, gfm: true });
export const iso = (article: WebArticle) => article.publishedAt.toISOString();
export const spelled = (article: WebArticle) =>
  article.publishedAt.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
export const links = (articles: WebArticle[]) =>
  articles.map((each) => `<li><a href="${each.slug}">${escape(each.title)}</a></li>`).join('');
/** Puts something behind the nth paragraph, as sites do with what they want to be seen. */
export const after = (html: string, nth: number, extra: string) => {
  let count = 0;
  return html.replace(/<\/p>/g, (end) => (++count === nth ? end + extra : end));
};
/** Data in a script element, with nothing in it that would end the element. */
export const jsonLd = (data: unknown) =>
  `<script type="application/ld+json">${JSON.stringify(data).replaceAll('</', '<\\/')}</script>`;

/** "Member\n: Anyone who…" paragraphs as a definition list. */
export function definitions(html: string): string {
  return html.replace(
    /(?:<p>[^<\n]+\n: [^<]+<\/p>\s*)+/g,
    (run) => `<dl>${run.replace(/<p>([^<\n]+)\n: ([^<]+)<\/p>/g, '<dt>$1</dt><dd>$2</dd>')}</dl>`,
  );
}

/** The posts of a thread: who wrote it, and what. The first is the article's author's. */
export const posts = (article: WebArticle) =>
  `## ${article.author}\n\n${article.markdown}`
    .split(/^## /m)
    .filter(Boolean)
    .map((post) => {
      const [line = '', ...rest] = post.split('\n');
      const who = line.replace(CHOSEN, '');
      return { who, isChosen: who !== line, html: marked.parse(rest.join('\n'), { async: false }) };
    });
const CHOSEN = / · chosen answer$/;

/** The pages of an article that is cut into several. */
export const pagesOf = (article: WebArticle) => article.markdown.split(/^<!-- page -->$/m);
