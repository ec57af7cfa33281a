import { extractArticle } from '..';
import { dateIn, dateInAddress } from './visible-date';

describe('a date in a line', () => {
  it.each([
    ['Published: Wednesday, 21 Sep 2011 | 4:35 PM ET', 'en', '2011-09-21'],
    ['posted Aug 18th 2010 7:30PM', 'en', '2010-08-18'],
    ['27 octobre 2012 à 18:27', 'fr', '2012-10-27'],
    ['3. März 2024, 12:00 Uhr', 'de', '2024-03-03'],
    ['28 de octubre de 2012', 'es', '2012-10-28'],
    ['2026年11月25日', 'ja', '2026-11-25'],
    ['2015. augusztus 20., 11:16', 'hu', '2015-08-20'],
    ['15 sierpnia 2015', 'pl', '2015-08-15'],
    ['15 август 2015 13:28', 'bg', '2015-08-15'],
    ['الأحد، 04 آب/اغسطس 2013، آخر تحديث 02:21', 'ar', '2013-08-04'],
    ['11 novembre 2026', 'it', '2026-11-11'],
    ['den 3 maj 2026', 'sv', '2026-05-03'],
    ['3 Eylül 2026', 'tr', '2026-09-03'],
    ['3 September 2026', 'xx-none', '2026-09-03'],
    ['11/25/2026', 'en-US', '2026-11-25'],
    ['25/11/2026', 'en-GB', '2026-11-25'],
    ['04.11.2026', 'de', '2026-11-04'],
    ['13/11/2026', 'en', '2026-11-13'],
  ])('%s (%s)', (line, language, date) => expect(dateIn(line, language)).toBe(date));

  it.each(['May the best boat win', 'Yesterday at noon', 'room 2012', '99/99/2012', 'in 1868 there were 61'])(
    '%s has none',
    (line) => expect(dateIn(line, 'en')).toBeNull(),
  );
});

it.each([
  ['https://x.example/2012/10/27/title', '2012-10-27'],
  ['https://x.example/news-2012-1-7', '2012-01-07'],
  ['https://x.example/2012/13/01/', null],
  ['https://x.example/item/20121027', null],
])('the date in %s is %s', (address, date) => expect(dateInAddress(address)).toBe(date));

describe('what only readers are shown', () => {
  const page = (head: string) =>
    `<html lang="en"><title>The ferry is late - The Courier</title><body><div class="top"><h1>The ferry is late</h1>${head}</div>
     <div class="comments"><span class="date">1 January 2001</span></div>
     <div class="story">${'<p>It was late on Monday, and it was late again on Tuesday, and nobody minded very much.</p>'.repeat(6)}</div></body></html>`;
  it.each([
    ['<p class="meta">By <a href="/a">Ada Quill</a> on June 8, 2012</p>', 'Ada Quill', '2012-06-08'],
    ['<div class="byline">Ada Quill, 8 June 2012, 12 comments</div>', 'Ada Quill', '2012-06-08'],
    ['<span>By Ada Quill</span><span class="timestamp">2012-06-08 10:00</span>', 'Ada Quill', '2012-06-08'],
    ['<p>By Ada Quill</p><p>8 June 2012</p>', 'Ada Quill', '2012-06-08'],
    ['<div class="byline">10:41 AM</div>', null, null],
  ])('%s', (head, byline, date) => {
    const article = extractArticle(page(head), 'https://x.example/');
    expect([article.authors[0] ?? null, article.publishedAt]).toEqual([byline, date]);
    expect(article.title).toBe('The ferry is late');
    expect(article.text).toMatch(/^It was late on Monday/);
  });
});
