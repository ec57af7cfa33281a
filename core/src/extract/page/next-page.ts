import { absolute } from '../metadata/metadata';
import { attribute, label, type PageElement, startOfText } from './page-tree';

/** "Next", "page 2", a bare number or an arrow, in some languages. Common practice. */
const SAYS_NEXT =
  /^(?:(?:next|older)?(?:\s*page)?(?:\s*\d{1,3})?\s*[›»→>]*|next(?: page)?.{0,20}|continue(?: reading)?.{0,30}|weiter|nächste seite|suivante?|page suivante|siguiente|próxima|volgende|次(?:へ|のページ)|下一页|下一頁|التالي)$/iu;

/**
 * The address of the next page of an article that is cut into several.
 *
 * A page may call much "next" that is another article, so that the address itself has to agree: it is this page's
 * address with a page number one higher than this page's own.
 *
 * @param elements all of the page
 * @param address of this page
 * @returns an absolute address, or null
 */
export function findNextPage(elements: readonly PageElement[], address: string): string | null {
  const here = pageAddress(address);
  if (!here) return null;
  for (const element of elements) {
    if (element.tagName !== 'a' && element.tagName !== 'link') continue;
    const href = attribute(element, 'href');
    // Reading an address takes time, and a page has many: the next page has its number in it.
    if (!href?.includes(String(here.page + 1))) continue;
    const target = absolute(href, address);
    const there = target && pageAddress(target);
    if (!there || there.stem !== here.stem || there.page !== here.page + 1) continue;
    const isNamed =
      /(?:^|\s)next(?:$|\s)/i.test(attribute(element, 'rel') ?? '') ||
      /next|pag(?:e|er|ination)/.test(label(element)) ||
      SAYS_NEXT.test(startOfText(element, 60)) ||
      SAYS_NEXT.test(attribute(element, 'aria-label') ?? '-');
    if (isNamed) return target;
  }
  return null;
}

/** An address without its page number, and that number; 1 where none is written. Null when it is no address. */
function pageAddress(address: string): { stem: string; page: number } | null {
  if (!URL.canParse(address)) return null;
  const url = new URL(address);
  url.hash = '';
  for (const [name, value] of url.searchParams)
    if (/^(?:p|pg|page|pagina|seite|paged|pageno|pagenum)$/i.test(name) && /^\d{1,3}$/.test(value)) {
      url.searchParams.delete(name);
      return { stem: stemOf(url), page: Number(value) };
    }
  const inPath =
    /^(.*?)(?:\/(?:page|seite|pagina|p)[/-]?(\d{1,3})|\/(\d{1,2})|[-_,](?:p|page|seite)?-?(\d{1,2}))(\.\w{2,5})?\/?$/i.exec(
      url.pathname,
    );
  const page = Number(inPath?.[2] ?? inPath?.[3] ?? inPath?.[4]);
  if (inPath && page > 0) {
    url.pathname = `${inPath[1] ?? ''}${inPath[5] ?? ''}`;
    // A first page may well end in a number of its own ("…-in-2024"): only small numbers count pages.
    return { stem: stemOf(url), page };
  }
  return { stem: stemOf(url), page: 1 };
}

function stemOf(url: URL): string {
  return `${url.host.replace(/^www\./, '')}${url.pathname.replace(/\/$/, '')}${url.search}`;
}
