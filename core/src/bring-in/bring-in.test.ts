import { brotliCompressSync } from 'node:zlib';
import fc from 'fast-check';
import { gzipSync, strFromU8, strToU8, zipSync } from 'fflate';
import {
  addressTableIn,
  chaptersOf,
  foundInFeed,
  foundInTable,
  likelyColumns,
  pagesInWarc,
  pagesInZip,
  readHighlightFile,
  type TableColumns,
} from '.';

/** All that takes a file, whatever is in it. */
const TAKERS: Readonly<Record<string, (bytes: Uint8Array) => unknown>> = {
  chapters: chaptersOf,
  feeds: (bytes) => foundInFeed(strFromU8(bytes)),
  highlights: (bytes) => readHighlightFile(strFromU8(bytes)),
  tables: (bytes) => {
    const table = addressTableIn(strFromU8(bytes));
    return table && foundInTable(table, likelyColumns(table));
  },
  'web archives': pagesInWarc,
  'ZIP files': pagesInZip,
};

describe.each(Object.entries(TAKERS))('files taken for %s', (_name, take) => {
  it('never end in an error, whatever is in them', () => {
    const bytes = fc.oneof(
      fc.uint8Array({ maxLength: 400 }),
      fc.string({ unit: 'binary', maxLength: 400 }).map((text) => strToU8(text)),
      fc
        .array(
          fc.constantFrom(
            '=====',
            '# a',
            '> q',
            '- x',
            'page 3',
            '2026-03-04',
            '\n',
            'WARC/1.1\r\n\r\n',
            'url,a\n',
            '<feed>',
            '{"',
            '%',
          ),
        )
        .map((parts) => strToU8(parts.join('\n'))),
      fc
        .uint8Array({ maxLength: 200 })
        .map((content) => zipSync({ 'a.html': content, 'META-INF/container.xml': content })),
      fc.uint8Array({ maxLength: 200 }).map((content) => gzipSync(content)),
    );
    fc.assert(
      fc.property(bytes, (given) => {
        take(given);
      }),
      { numRuns: 300 },
    );
  });
});

const PNG = Uint8Array.from(
  atob('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='),
  (char) => char.charCodeAt(0),
);

describe('a table of pages', () => {
  const table = (written: string) => addressTableIn(written)!;

  it('has its columns by what they are called, and the addresses by what stands in them', () => {
    const read = table(
      'Title,Link,Folder,Date added,Status\nReef,https://a.example/1,"sea, boats",2026-03-04,archive\n',
    );
    expect(likelyColumns(read)).toEqual({ title: 0, address: 1, tags: 2, saved: 3, read: 4, note: null });
    expect(foundInTable(read, likelyColumns(read)).found).toEqual([
      {
        address: 'https://a.example/1',
        title: 'Reef',
        tags: ['sea', 'boats'],
        savedAt: Date.parse('2026-03-04'),
        isRead: true,
        note: null,
        text: null,
      },
    ]);
    // Named otherwise than it is: what stands in it counts.
    expect(likelyColumns(table('url;where\nReef;https://a.example/1')).address).toBe(1);
    // Without a head.
    expect(table('https://a.example/1\tReef')).toEqual({
      head: ['Column 1', 'Column 2'],
      rows: [['https://a.example/1', 'Reef']],
    });
  });

  it.each(['a list of words', 'a,b\nc,d', 'https://a.example/1\nhttps://a.example/2', ''])('is not %j', (written) => {
    expect(addressTableIn(written)).toBeNull();
  });

  const columns: TableColumns = { address: 0, title: null, tags: null, saved: 1, read: null, note: null };
  const days = (...written: string[]) =>
    foundInTable({ head: ['a', 'b'], rows: written.map((each) => ['https://a.example/', each]) }, columns).found.map(
      ({ savedAt }) => (savedAt === null ? null : new Date(savedAt).toISOString().slice(0, 16)),
    );

  it('knows days in the ways in which tables have them', () => {
    expect(days('2026-03-04', '1772582400', '1772582400000', '4 March 2026', '', 'soon')).toEqual([
      ...Array<string>(4).fill('2026-03-04T00:00'),
      null,
      null,
    ]);
    // Which of the two numbers is the month is seen where one is more than twelve; else the day comes first.
    expect(days('03/04/2026', '03/25/2026 14:05')).toEqual(['2026-03-04T00:00', '2026-03-25T14:05']);
    expect(days('03/04/2026', '25.03.2026')).toEqual(['2026-04-03T00:00', '2026-03-25T00:00']);
    expect(days('03/04/2026')).toEqual(['2026-04-03T00:00']);
  });

  it('tells of rows without an address, and of what is unread by its own column', () => {
    const read = table('unread,url\n1,https://a.example/1\n0,https://a.example/2\n1,\n,https://a.example/3');
    const { found, faults } = foundInTable(read, likelyColumns(read));
    expect(found.map(({ isRead }) => isRead)).toEqual([false, true, null]);
    expect(faults).toEqual([{ written: 'Row 4', says: 'There is no address in it.' }]);
  });
});

describe('an archive that is written as a feed', () => {
  it('gives the texts and days of JSON Feed (the example of jsonfeed.org/version/1.1)', () => {
    const feed = {
      version: 'https://jsonfeed.org/version/1.1',
      title: 'My Example Feed',
      home_page_url: 'https://example.org/',
      feed_url: 'https://example.org/feed.json',
      items: [
        { id: '2', content_text: 'This is a second item.', url: 'https://example.org/second-item' },
        {
          id: '1',
          content_html: '<p>Hello, world!</p>',
          url: 'https://example.org/initial-post',
          date_published: '2026-03-04T10:00:00Z',
        },
      ],
    };
    const { found } = foundInFeed(JSON.stringify(feed))!;
    expect(found.map(({ address }) => address)).toEqual([
      'https://example.org/second-item',
      'https://example.org/initial-post',
    ]);
    expect(found[0]?.text?.body).toContain('<p>This is a second item.</p>');
    expect(found[1]).toMatchObject({ savedAt: Date.parse('2026-03-04T10:00:00Z') });
    expect(found[1]?.text?.body).toContain('<p>Hello, world!</p>');
  });

  it('gives those of Atom, XHTML and escaped (RFC 4287, 1.1 and 3.1.1)', () => {
    const { found } = foundInFeed(`<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom"><title>F</title>
      <entry><title>One</title><link href="http://example.org/2005/04/02/atom"/><id>tag:example.org,2003:3.2397</id>
        <published>2003-12-13T08:29:29-04:00</published>
        <content type="xhtml"><div xmlns="http://www.w3.org/1999/xhtml"><p><i>[Update: The Atom draft is finished.]</i></p></div></content></entry>
      <entry><title>Two</title><id>urn:x</id><content type="html">&lt;p&gt;Less than: &amp;lt;&lt;/p&gt;</content></entry>
      <entry><title>Three</title><id>urn:y</id><content type="text">a &lt; b</content></entry></feed>`)!;
    expect(found[0]).toMatchObject({
      address: 'http://example.org/2005/04/02/atom',
      savedAt: Date.parse('2003-12-13T12:29:29Z'),
    });
    expect(found[0]?.text?.body).toContain('<i>[Update: The Atom draft is finished.]</i>');
    expect(found[1]?.text?.body).toContain('<p>Less than: &lt;</p>');
    expect(found[2]?.text?.body).toContain('<p>a &lt; b</p>');
  });

  it('is nothing else', () => {
    expect(foundInFeed('{"items":[]}')).toBeNull();
    expect(foundInFeed('<html><body>x</body></html>')).toBeNull();
  });
});

describe('pages in a ZIP file', () => {
  it('come with their pictures, and with what stands in front of them', () => {
    const { found, faults } = pagesInZip(
      zipSync({
        'notes/reef.md': strToU8(
          '---\ntitle: "The reef: a log"\nurl: https://a.example/reef\ntags: [sea, boats]\nsaved: 2026-03-04\n---\nLow water.',
        ),
        'pages/a page.html': strToU8(
          '<meta charset="utf-8"><h1>Ebb</h1><img src="../img/a%20b.png"><img src="https://x.example/y.png">',
        ),
        'pages/kept.html': strToU8('<link rel="canonical" href="https://a.example/kept"><p>Kept.'),
        'img/a b.png': PNG,
        'words.txt': strToU8('Plain words.'),
        'empty.md': strToU8(' '),
        '__MACOSX/._reef.md': strToU8('litter'),
        'program.exe': strToU8('MZ'),
      }),
    );
    expect(faults).toEqual([]);
    expect(found.map(({ text }) => text?.name)).toEqual(['reef.md', 'a page.html', 'kept.html', 'words.txt']);
    expect(found[0]).toMatchObject({
      address: 'https://a.example/reef',
      title: 'The reef: a log',
      tags: ['sea', 'boats'],
      savedAt: Date.parse('2026-03-04'),
      text: { type: 'text/markdown', body: '# The reef: a log\n\nLow water.' },
    });
    expect(found[1]?.text?.body).toMatch(/src="data:image\/png;base64,iVBOR.*src="https:\/\/x\.example\/y\.png"/s);
    expect(found[2]?.address).toBe('https://a.example/kept');
  });

  it('are told of when there are none, or they cannot be unpacked', () => {
    expect(pagesInZip(zipSync({ 'a.exe': strToU8('x') })).faults[0]?.says).toMatch(/no pages/);
    expect(pagesInZip(strToU8('PK no')).faults[0]?.says).toMatch(/cannot be unpacked/);
  });

  it('are not followed without end by what stands in front of them', () => {
    const bomb = `---\na: &a [x,x,x,x,x,x,x,x,x]\nb: &b [*a,*a,*a,*a,*a,*a,*a,*a,*a]\nc: &c [*b,*b,*b,*b,*b,*b,*b,*b,*b]\ntags: *c\n---\nWords.`;
    const { found } = pagesInZip(zipSync({ 'a.md': strToU8(bomb) }));
    expect(found[0]?.text?.body).toContain('Words.');
    expect(found[0]?.tags).toEqual([]);
  });
});

describe('an e-book by its chapters', () => {
  const long = 'The tide came in over the flats and went out again. '.repeat(12);
  const book = (chapters: Readonly<Record<string, string>>) =>
    zipSync({
      mimetype: strToU8('application/epub+zip'),
      'META-INF/container.xml': strToU8(
        '<container><rootfiles><rootfile full-path="OPS/book.opf"/></rootfiles></container>',
      ),
      'OPS/book.opf': strToU8(
        `<package xmlns:dc="x"><metadata><dc:title>Tides</dc:title><dc:creator>M. Oddway</dc:creator><dc:language>en</dc:language></metadata><manifest>${Object.keys(
          chapters,
        )
          .map((name, n) => `<item id="c${n}" href="${name}" media-type="application/xhtml+xml"/>`)
          .join('')}</manifest><spine>${Object.keys(chapters)
          .map((_, n) => `<itemref idref="c${n}"/>`)
          .join('')}</spine></package>`,
      ),
      'OPS/img/a.png': PNG,
      ...Object.fromEntries(Object.entries(chapters).map(([name, body]) => [`OPS/${name}`, strToU8(body)])),
    });

  it('gives each as a text of its own, with its pictures, the title page left out', () => {
    const { found, faults } = chaptersOf(
      book({
        'title.xhtml': '<html><body><h1>Tides</h1></body></html>',
        'one.xhtml': `<html><body><h2>Ebb &amp; <i>flow</i></h2><p>${long}</p><img src="img/a.png" alt=""/></body></html>`,
        'two.xhtml': `<html><body><p>${long}</p></body></html>`,
      }),
    );
    expect(faults).toEqual([]);
    expect(found.map(({ title }) => title)).toEqual(['Ebb & flow — Tides', 'Part 3 — Tides']);
    expect(found[0]?.text?.body).toContain(
      '<meta name="author" content="M. Oddway"><meta property="og:site_name" content="Tides">',
    );
    expect(found[0]?.text?.body).toContain('src="data:image/png;base64,');
  });

  it('has names and pictures with percent signs that are no codes', () => {
    const { found } = chaptersOf(
      book({ '100%.xhtml': `<html><body><p>${long}</p><img src="img/50%zz.png" alt=""/></body></html>` }),
    );
    expect(found).toHaveLength(1);
  });

  it('is told of when it is none', () => {
    expect(chaptersOf(zipSync({ 'a.txt': strToU8('x') })).faults[0]?.says).toMatch(/does not say/);
    expect(chaptersOf(book({ 'a.xhtml': '<p>x</p>' })).faults[0]?.says).toMatch(/no chapters/);
  });
});

describe('a web archive', () => {
  /** A record as WARC 1.1 (ISO 28500:2017), 4 and Annex B have them. */
  const record = (headers: Readonly<Record<string, string>>, content: Uint8Array): Uint8Array =>
    joined(
      strToU8(
        `WARC/1.1\r\n${Object.entries({ ...headers, 'Content-Length': String(content.length) })
          .map(([name, value]) => `${name}: ${value}`)
          .join('\r\n')}\r\n\r\n`,
      ),
      content,
      strToU8('\r\n\r\n'),
    );
  const joined = (...parts: Uint8Array[]): Uint8Array => Uint8Array.from(parts.flatMap((part) => [...part]));
  const response = (uri: string, head: string, body: Uint8Array): Uint8Array =>
    record(
      {
        'WARC-Type': 'response',
        'WARC-Target-URI': uri,
        'WARC-Date': '2026-03-04T10:00:00Z',
        'Content-Type': 'application/http; msgtype=response',
      },
      joined(strToU8(`HTTP/1.1 ${head}\r\n\r\n`), body),
    );
  const html = '<html><body><h1>Größe</h1><img src="/a.png"></body></html>';
  const parts = [
    record({ 'WARC-Type': 'warcinfo', 'WARC-Filename': 'x.warc' }, strToU8('software: x')),
    record({ 'WARC-Type': 'request', 'WARC-Target-URI': 'https://a.example/' }, strToU8('GET / HTTP/1.1')),
    response('https://a.example/', '200 OK\r\nContent-Type: text/html; charset=utf-8', strToU8(html)),
    response('https://a.example/a.png', '200 OK\r\nContent-Type: image/png', PNG),
    response('https://a.example/gone', '404 Not Found\r\nContent-Type: text/html', strToU8('gone')),
    response(
      'https://a.example/packed',
      '200 OK\r\nContent-Type: text/html\r\nContent-Encoding: gzip',
      gzipSync(strToU8('<p>Packed.')),
    ),
    response(
      'https://a.example/chunks',
      '200 OK\r\nContent-Type: text/html\r\nTransfer-Encoding: chunked',
      strToU8('4\r\n<p>C\r\n6;x=y\r\nhunks.\r\n0\r\n\r\n'),
    ),
    response(
      'https://a.example/br',
      '200 OK\r\nContent-Type: text/html\r\nContent-Encoding: br',
      // Node's own is the reference implementation of RFC 7932.
      new Uint8Array(brotliCompressSync(`<p>${'So much of it. '.repeat(20_000)}`)),
    ),
    response(
      'https://a.example/zstd',
      '200 OK\r\nContent-Type: text/html\r\nContent-Encoding: zstd',
      strToU8('\u0001'),
    ),
    response('https://a.example/cut', '200 OK\r\nContent-Type: text/html\r\nContent-Encoding: br', strToU8('\u0001')),
  ];
  const expected = {
    addresses: ['', 'packed', 'chunks', 'br'].map((path) => `https://a.example/${path}`),
    faults: ['zstd', 'cut'].map((path) => ({
      written: `https://a.example/${path}`,
      says: 'It is packed in a way that cannot be read here.',
    })),
  };

  it.each([
    ['as it is', () => joined(...parts)],
    ['packed record by record (Annex D)', () => joined(...parts.map((part) => gzipSync(part)))],
  ])('gives its pages %s, with their pictures, addresses and days', (_how, bytes) => {
    const { found, faults } = pagesInWarc(bytes());
    expect(found.map(({ address }) => address)).toEqual(expected.addresses);
    expect(faults).toEqual(expected.faults);
    expect(found[0]).toMatchObject({ savedAt: Date.parse('2026-03-04T10:00:00Z') });
    expect(found[0]?.text?.body).toMatch(/Größe.*src="data:image\/png/s);
    expect(found.slice(1, 3).map(({ text }) => text?.body)).toEqual(['<p>Packed.', '<p>Chunks.']);
    expect(found[3]?.text?.body).toHaveLength(3 + 20_000 * 'So much of it. '.length);
  });

  it('gives what is whole of one that is cut off, and says so of one that has nothing', () => {
    const whole = joined(...parts.slice(0, 3));
    expect(pagesInWarc(whole.slice(0, -20)).found).toHaveLength(1);
    expect(pagesInWarc(strToU8('no')).faults[0]?.says).toMatch(/no pages/);
    expect(pagesInWarc(gzipSync(strToU8('no')).slice(0, 12)).faults).toHaveLength(1);
  });
});
