import { fates, isReadIn } from '../../demo/seed/fates';
import {
  DAY_BOOK_DAYS,
  DAY_BOOK_ENTRIES,
  DAY_BOOK_PAGES,
  DAY_BOOKS,
  dayBookArticle,
  dayBookEntries,
  dayBookPages,
} from '../../demo/small-web/day-books';

describe('the demo’s two years', () => {
  it('are the same at every start', () => {
    expect(fates()).toEqual(fates());
    expect(dayBookPages().map(dayBookArticle)).toEqual(dayBookPages().map(dayBookArticle));
  });

  it('have their pages spread over them, of all columns, with few titles twice', () => {
    const pages = dayBookPages();
    expect(pages).toHaveLength(DAY_BOOK_PAGES);
    const days = pages.map(({ daysAgo }) => daysAgo);
    expect(Math.max(...days) - Math.min(...days)).toBeGreaterThan(DAY_BOOK_DAYS - 10);
    expect(new Set(pages.map(({ host }) => host)).size).toBe(4);
    const titles = pages.map((page) => dayBookArticle(page).title);
    expect(new Set(titles).size).toBeGreaterThan(0.9 * titles.length);
  });

  it('have no slot left open in their sentences, and text enough for a minute', () => {
    for (const page of dayBookPages()) {
      const { title, markdown } = dayBookArticle(page);
      expect(`${title} ${markdown}`).not.toMatch(/[{}]|undefined/);
      expect(markdown.split(/\s+/).length).toBeGreaterThan(60);
    }
  });

  it('go on in the feeds of their columns, with entries that are none of them, the newest first', () => {
    const saved = new Set(dayBookPages().map(({ slug }) => slug));
    for (const { host } of DAY_BOOKS) {
      const entries = dayBookEntries(host);
      expect(entries).toHaveLength(DAY_BOOK_ENTRIES);
      expect(entries.filter(({ slug }) => saved.has(slug))).toEqual([]);
      expect(entries.map(({ daysAgo }) => daysAgo)).toEqual(
        entries.map(({ daysAgo }) => daysAgo).toSorted((a, b) => a - b),
      );
      const titles = entries.map((page) => dayBookArticle(page).title);
      expect(new Set(titles).size).toBeGreaterThan(0.8 * titles.length);
      expect(titles.join(' ')).not.toMatch(/[{}]|undefined/);
    }
    expect(dayBookEntries('nowhere')).toEqual([]);
  });

  it('end as a reader’s do: most of it read, some kept, some let go, dozens of passages marked', () => {
    const all = fates();
    const share = (of: (fate: (typeof all)[number]) => boolean) => all.filter(of).length / all.length;
    expect(share(({ end }) => end === 'finished')).toBeGreaterThan(0.5);
    expect(share(({ end }) => end === 'let-go')).toBeLessThan(0.2);
    expect(share(({ end }) => end === 'queue' || end === 'inbox')).toBeLessThan(0.12);
    expect(all.filter(({ mark }) => mark !== null).length).toBeGreaterThan(36);
  });

  it('finish nothing in days to come', () => {
    for (const fate of fates().filter(isReadIn))
      expect(fate.page.daysAgo - fate.savedAfter - fate.finishedAfter).toBeGreaterThanOrEqual(1);
  });
});
