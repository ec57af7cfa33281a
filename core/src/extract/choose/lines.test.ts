import { announcesOthers, isLineOfClutter, isPreambleLine, isSignedAndDated } from './lines';

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
    'This post contains affiliate links. We may earn a small commission.',
    'Pin this for later!',
    'Did you make this? Tell the world.',
    '★★★★★ 4.8 from 61 votes',
    'You are reading the documentation for version 4, which is no longer maintained.',
    'This video can not be played',
    'Do you have a story for us? Write to the desk.',
    'Enjoying this letter? Become a member.',
    '1,204 Accesses',
    'Suscríbete para seguir leyendo.',
    'Archivado en Vecinos Vivienda',
  ])('%s', (line) => expect(isLineOfClutter(line)).toBe(true));

  it.each([
    'Share prices fell on Tuesday, and nobody was surprised.',
    'Read the tables twice before you sail.',
    'Comments were few, and most of them kind.',
    'Like a rope, it holds best when it is wet.',
    'Print was dead, they said.',
    'Pin this on him if you can, said the judge.',
    'Did you make this mistake, too?',
    'This video can change how you see a harbour.',
    'If you liked this, I was told, you would like the sea.',
    'You are reading too much into it.',
    'If you liked this novel, you will love her second.',
    'Did you make it?',
    'Do you have a story that explains that?',
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

describe('lines that say who wrote it and when', () => {
  it.each([
    'Par Maël Kergoat, 27 septembre 2026',
    'Von Ragna Osgood, 16. September 2026',
    'By Ada Quill and Bo Reed, June 8, 2012',
    'By Ada Quill · 2012-06-08',
    'Por Inés Salvatierra, 3 de mayo de 2021.',
  ])('%s', (line) => expect(isSignedAndDated(line)).toBe(true));

  it.each([
    'By Ada Quill',
    '27 septembre 2026',
    'From the harbour, 3 May 2012',
    'By the pier, on 3 May 2012, the boats lay two abreast.',
    'By Tuesday, 3 May 2012',
    'By Ada Quill, who was at the pier on 3 May 2012 when it fell',
  ])('%s stays', (line) => expect(isSignedAndDated(line)).toBe(false));
});

it.each(['Related stories', 'More from this author', 'You may also like', 'Sur le même sujet', '相关新闻'])(
  '%s announces other articles',
  (line) => expect(announcesOthers(line)).toBe(true),
);
it.each(['More or less', 'What dredging takes away', 'Other seas'])('%s does not', (line) =>
  expect(announcesOthers(line)).toBe(false),
);
