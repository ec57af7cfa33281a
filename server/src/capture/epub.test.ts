import { causeWords } from '@dorvel/core/wording';
import { strToU8, zipSync } from 'fflate';
import { fileTypeFromBuffer } from 'file-type';
import { readEpub } from './epub';
import { articleFrom } from './inputs';

/** Files as EPUB 3.3 (W3C Recommendation) asks for: its minimal package document (5.2), with our own words. */
const CONTAINER = `<?xml version="1.0"?><container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="EPUB/package.opf" media-type="application/oebps-package+xml"/></rootfiles></container>`;
const PACKAGE = `<?xml version="1.0"?><package version="3.0" xmlns="http://www.idpf.org/2007/opf" unique-identifier="uid">
<metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="uid">x</dc:identifier><dc:title>The Keel &amp; the Tide</dc:title><dc:creator>Orla Vance</dc:creator><dc:language>en</dc:language><dc:date>2024-03-01</dc:date></metadata>
<manifest><item id="nav" href="nav.xhtml" media-type="application/xhtml+xml" properties="nav"/><item id="two" href="text/two.xhtml" media-type="application/xhtml+xml"/><item id="one" href="text/one.xhtml" media-type="application/xhtml+xml"/><item id="aside" href="text/aside.xhtml" media-type="application/xhtml+xml"/><item id="pic" href="pictures/a%20keel.png" media-type="image/png"/></manifest>
<spine><itemref idref="nav"/><itemref idref="one"/><itemref idref="two"/><itemref idref="aside" linear="no"/></spine></package>`;
const chapter = (title: string, words: string) =>
  `<?xml version="1.0"?><html xmlns="http://www.w3.org/1999/xhtml"><head><title>${title}</title></head><body><h2>${title}</h2>${words}</body></html>`;
const prose = (about: string) =>
  `<p>${`The ${about} was looked at again in the spring, plank by plank, and nothing was found that could not wait. `.repeat(5)}</p>`;

function book(files: Record<string, string | Uint8Array>): Buffer {
  const entries = Object.entries({ mimetype: 'application/epub+zip', ...files }).map(([name, content]) => [
    name,
    [typeof content === 'string' ? strToU8(content) : content, { level: name === 'mimetype' ? 0 : 6 }],
  ]);
  return Buffer.from(zipSync(Object.fromEntries(entries) as Parameters<typeof zipSync>[0]));
}
const whole = () =>
  book({
    'META-INF/container.xml': CONTAINER,
    'EPUB/package.opf': PACKAGE,
    'EPUB/nav.xhtml': chapter('Contents', '<nav><ol><li><a href="text/one.xhtml">One</a></li></ol></nav>'),
    'EPUB/text/one.xhtml': chapter(
      'The keel',
      `${prose('keel')}<p><img src="../pictures/a%20keel.png" alt="A keel"/></p>`,
    ),
    'EPUB/text/two.xhtml': chapter('The tide', prose('tide')),
    'EPUB/text/aside.xhtml': chapter('An aside', prose('aside')),
    'EPUB/pictures/a keel.png': new Uint8Array([137, 80, 78, 71]),
  });

it('gives the chapters in reading order, without the contents and what stands beside', async () => {
  const bytes = whole();
  expect((await fileTypeFromBuffer(bytes))?.mime).toBe('application/epub+zip');
  const taken = await articleFrom({
    body: bytes,
    contentType: 'application/epub+zip',
    url: 'https://x.invalid/keel.epub',
    howMuch: 'words-and-pictures',
  });
  if (!taken.ok) throw new Error(taken.cause.code);
  const { article, attached } = taken;
  expect(article).toMatchObject({ title: 'The Keel & the Tide', authors: ['Orla Vance'], language: 'en' });
  const words = JSON.stringify(article.tree);
  expect(words.indexOf('The keel was looked at')).toBeGreaterThan(-1);
  expect(words.indexOf('The tide was looked at')).toBeGreaterThan(words.indexOf('The keel was looked at'));
  expect(words).not.toContain('The aside was looked at');
  expect(words).not.toContain('"Contents"');
  expect(words).toContain('https://book.invalid/EPUB/pictures/a%20keel.png');
  expect(attached.map(({ address }) => address)).toEqual(['https://book.invalid/EPUB/pictures/a%20keel.png']);
});

it.each([
  ['no package document', book({ 'META-INF/container.xml': CONTAINER }), /does not say where/],
  ['no container', book({ 'EPUB/package.opf': PACKAGE }), /does not say where/],
  ['no chapters', book({ 'META-INF/container.xml': CONTAINER, 'EPUB/package.opf': PACKAGE }), /has no text/],
  ['half of it', whole().subarray(0, 400), /damaged/],
])('says what is wrong with a book: %s', (_, bytes, says) => {
  const read = readEpub(bytes);
  expect(!read.ok && causeWords(read.cause)).toMatch(says);
});

it('does not unpack what would fill the memory', () => {
  const bomb = book({
    'META-INF/container.xml': CONTAINER,
    'EPUB/package.opf': PACKAGE,
    'EPUB/text/one.xhtml': new Uint8Array(90_000_000),
  });
  expect(bomb.length).toBeLessThan(200_000);
  expect(readEpub(bomb)).toEqual({ ok: false, cause: { code: 'book-too-large' } });
});
