import { label, type PageElement, startOfText, tidy } from '../page/page-tree';

const MAX_HEADLINES = 20;

/** What may be the headline: first `h1`, then lesser headings and what is named so. */
export function headlines(elements: PageElement[]): string[] {
  const of = (wanted: (e: PageElement) => boolean) =>
    elements
      .filter(wanted)
      .slice(0, MAX_HEADLINES)
      .map((e) => startOfText(e, 300))
      .filter((each) => each.length > 0 && each.length < 300);
  return [
    ...of((e) => e.tagName === 'h1'),
    ...of((e) => /^h[23]$/.test(e.tagName)).slice(0, 6),
    ...of(
      (e) =>
        /(?:^|[\s_-])(?:headline|title)(?:$|[\s_-])/.test(label(e)) && !/^(?:h[1-6]|a|meta|title)$/.test(e.tagName),
    ).slice(0, 6),
  ];
}

/** Shorter headings than this agree with a title by chance. */
const MIN_AGREEMENT = 16;

/**
 * What a page calls itself when it is shared (`og:title`), unless the page's own title says something else and a headline
 * on the page agrees with that: then the headline, which is what readers see. A shared title that stands on the page as a
 * heading is seen already.
 */
export function headlineOverShared(
  shared: string | null,
  pageTitle: string,
  headings: readonly string[],
): string | null {
  if (shared === null || pageTitle.toLowerCase().includes(shared.toLowerCase())) return shared;
  const known = shared.toLowerCase();
  if (headings.some((heading) => heading.toLowerCase() === known)) return shared;
  const seen = headings.find((heading) => heading.length >= MIN_AGREEMENT && pageTitle.startsWith(heading));
  return seen !== undefined && !shared.includes(seen) ? seen : shared;
}

/** "Larch or oak | The Slipway" → "Larch or oak": cut at a separator when the rest names the site or a heading confirms it. */
export function withoutSiteName(title: string, siteName: string | null, headings: string[]): string {
  const clean = tidy(title);
  const same = (a: string, b: string) => a.localeCompare(b, undefined, { sensitivity: 'base' }) === 0;
  const confirmed = headings.find(
    (heading) =>
      heading.length > 3 &&
      heading.length < clean.length &&
      // A word or two before much else is more likely the site's sign than the headline.
      (heading.split(' ').length > 2 || clean.replace(heading, '').split(/\s+/).length <= 6) &&
      (clean.startsWith(heading) || clean.endsWith(heading)),
  );
  if (confirmed) {
    const rest = clean.replace(confirmed, '');
    if (/^\s*[|\-–—»«:·•/\\]|[|\-–—»«:·•/\\]\s*$/.test(rest)) return confirmed;
  }
  const bracket = /\[[^\]]{2,25}\.[a-z]{2,4}\]$/i.exec(clean);
  const before = bracket ? clean.slice(0, bracket.index).trimEnd() : '';
  if (before.length >= 8) return before;
  const parts = clean.split(/\s+[|–—»«·•]\s+|\s+[-/]\s+/);
  if (parts.length < 2) return clean;
  const last = parts.at(-1) ?? '';
  const first = parts[0] ?? '';
  if (siteName && same(last, siteName)) return clean.slice(0, clean.lastIndexOf(last)).replace(/[\s|\-–—»«·•/]+$/, '');
  if (siteName && same(first, siteName)) return clean.slice(first.length).replace(/^[\s|\-–—»«·•/]+/, '');
  if (siteName && isOfSite(last, siteName))
    return clean.slice(0, clean.lastIndexOf(last)).replace(/[\s|\-–—»«·•/]+$/, '');
  const hard = clean.split(/\s+[|»]\s+/);
  const main = hard[0] ?? '';
  return hard.length > 1 && main.split(' ').length >= 3 ? main : clean;
}

/** "COURIER NewsFeed" belongs to "Courier.com": a few words, the first of them the site's. */
function isOfSite(part: string, siteName: string): boolean {
  const plain = (value: string) =>
    value
      .toLowerCase()
      .replace(/^(?:the|www\.)\s*|\.(?:com|org|net)\b/g, '')
      .trim();
  const first = plain(siteName).split(/\s+/)[0] ?? '';
  const words = plain(part).split(/\s+/);
  return words.length <= 4 && first.length > 2 && words[0] === first;
}

const AROUND_A_SEPARATOR = /^[\s|\-–—»«:·•/\\]+|[\s|\-–—»«:·•/\\]+$/g;

/** "Larch or oak | The Slipway" under the headline "Larch or oak": what is left over is the site's name. */
export function siteNameInTitle(title: string, headings: string[]): string | null {
  const headline = headings.find((heading) => heading.length > 3 && title.startsWith(heading));
  if (!headline) return null;
  const rest = title.replace(headline, '');
  const name = rest.replace(AROUND_A_SEPARATOR, '');
  return name !== rest && name.length > 1 && name.length <= 40 && !/[|»·•]/.test(name) ? name : null;
}
