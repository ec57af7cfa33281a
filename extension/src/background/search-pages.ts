import { keepInPages } from './page-scripts';

/** Where the words stand in the address of a page that searches. */
const WORDS = '%s';

/** A page that searches the web, as the reader wrote it down. */
export interface SearchPage {
  /** Match pattern of its addresses. */
  pattern: string;
  /** The parameter that carries the words. */
  parameter: string;
}

/**
 * Reads an address with %s where the words stand, such as `https://search.example/find?words=%s`.
 *
 * @returns null when it is not one
 */
export function readSearchPage(written: string): SearchPage | null {
  const address = written.trim();
  if (!URL.canParse(address)) return null;
  const { protocol, hostname, pathname, searchParams } = new URL(address);
  if (!/^https?:$/.test(protocol)) return null;
  const parameter = [...searchParams].find(([, value]) => value === WORDS)?.[0];
  // A match pattern has no port: it is for all of them.
  return parameter === undefined ? null : { pattern: `${protocol}//${hostname}${pathname}*`, parameter };
}

/** The words that an address of one of these pages asks for; null when it is not one of them. */
export function wordsSearched(address: string, searches: readonly string[]): string | null {
  const { protocol, hostname, pathname, searchParams } = new URL(address);
  for (const written of searches) {
    const page = readSearchPage(written);
    if (page?.pattern !== `${protocol}//${hostname}${pathname}*`) continue;
    const words = searchParams.get(page.parameter)?.trim();
    if (words) return words;
  }
  return null;
}

/** Keeps the script on the pages that the reader has allowed, and on no other. */
export function showSearchLines(): void {
  keepInPages({
    id: 'search-line',
    runAt: 'document_end',
    matches: ({ searches }) => searches.flatMap((each) => readSearchPage(each)?.pattern ?? []),
  });
}
