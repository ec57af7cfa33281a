import { announcesOthers, isLineOfClutter, isPreambleLine } from './lines';

describe('lines of the page, not of its text', () => {
  it.each([
    'Advertisement',
    'Share this article',
    'Read more: How the tide was turned',
    'Filed under: Boats, Ferries',
    'Tags: larch, oak',
    '12 comments',
    'blog comments powered by',
    '© 2011 The Courier. All rights reserved.',
    'Lire aussi : Le bac de nuit',
    'Lesen Sie auch: Ebbe und Flut',
  ])('%s', (line) => expect(isLineOfClutter(line)).toBe(true));

  it.each([
    'Share prices fell on Tuesday, and nobody was surprised.',
    'Read the tables twice before you sail.',
    'Comments were few, and most of them kind.',
    'Like a rope, it holds best when it is wet.',
    'Print was dead, they said.',
  ])('%s stays', (line) => expect(isLineOfClutter(line)).toBe(false));
});

describe('lines between headline and text', () => {
  it.each([
    'By Ada Quill',
    'Von Birgit Salz',
    'Published: Wednesday, 21 Sep 2011 | 4:35 PM ET',
    'June 8, 2012 6:14 AM',
    '27 octobre 2012 à 18:27 (Mis à jour: 19:56)',
    '更新时间 2012年12月10日, 格林尼治标准时间10:41',
  ])('%s', (line) => expect(isPreambleLine(line)).toBe(true));

  it.each(['By noon the boats were in.', 'On June 8, 2012, the pier fell down.', 'A short standfirst without a date'])(
    '%s stays',
    (line) => expect(isPreambleLine(line)).toBe(false),
  );
});

it.each(['Related stories', 'More from this author', 'You may also like', 'Sur le même sujet', '相关新闻'])(
  '%s announces other articles',
  (line) => expect(announcesOthers(line)).toBe(true),
);
it.each(['More or less', 'What dredging takes away', 'Other seas'])('%s does not', (line) =>
  expect(announcesOthers(line)).toBe(false),
);
