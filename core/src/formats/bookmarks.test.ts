import { isBookmarkFile, readBookmarks } from '.';

/** In the form that "Netscape Bookmark File Format" gives (Microsoft Learn, aa753582; from memory), with our own pages. */
const FILE = `<!DOCTYPE NETSCAPE-Bookmark-file-1>
<!-- This is an automatically generated file. -->
<META HTTP-EQUIV="Content-Type" CONTENT="text/html; charset=UTF-8">
<TITLE>Bookmarks</TITLE>
<H1>Bookmarks</H1>
<DL><p>
    <DT><H3 ADD_DATE="1700000000" PERSONAL_TOOLBAR_FOLDER="true">Bookmarks bar</H3>
    <DL><p>
        <DT><A HREF="https://tides.example/table?year=2026&amp;port=skerrow" ADD_DATE="1700000001" ICON_URI="https://tides.example/icon.png" ICON="data:image/png;base64,AAAA">Tides &amp; times</A>
        <DT><H3>Boats</H3>
        <DL><p>
            <DT><A HREF="https://slipway.example/larch" TAGS="wood,,to read">Larch</A>
            <DD>What is said about it
            <DT><H3>Repair / hull</H3>
            <DL><p>
                <DT><A HREF="https://slipway.example/steam"></A>
            </DL><p>
            <DT><A HREF="https://slipway.example/oars">Oars</A>
        </DL><p>
    </DL><p>
    <DT><A HREF="javascript:alert(1)">A script</A>
    <DT><A>No address</A>
</DL><p>`;

it('gives each page with its title, its folders as a nested tag, and its own tags', () => {
  expect(isBookmarkFile(FILE)).toBe(true);
  expect(readBookmarks(FILE)).toEqual([
    {
      address: 'https://tides.example/table?year=2026&port=skerrow',
      title: 'Tides & times',
      tags: [],
      savedAt: 1_700_000_001_000,
    },
    { address: 'https://slipway.example/larch', title: 'Larch', tags: ['Boats', 'wood', 'to read'], savedAt: null },
    { address: 'https://slipway.example/steam', title: null, tags: ['Boats/Repair hull'], savedAt: null },
    { address: 'https://slipway.example/oars', title: 'Oars', tags: ['Boats'], savedAt: null },
    { address: 'javascript:alert(1)', title: 'A script', tags: [], savedAt: null },
  ]);
});

it.each([
  ['seconds', '1700000001', 1_700_000_001_000],
  ['milliseconds', '1700000001000', 1_700_000_001_000],
  ['microseconds', '1700000001000000', 1_700_000_001_000],
  ['nothing', '', null],
  ['zero', '0', null],
  ['words', 'yesterday', null],
  ['a negative number', '-5', null],
])('reads when a page was saved from %s', (_, written, savedAt) => {
  expect(readBookmarks(`<A HREF="https://a.example/" ADD_DATE="${written}">A</A>`)[0]?.savedAt).toBe(savedAt);
});

it('reads what it can of a file that is cut off, and of one without lists', () => {
  expect(readBookmarks(FILE.slice(0, FILE.indexOf('</DL>'))).map(({ tags }) => tags)).toEqual([
    [],
    ['Boats', 'wood', 'to read'],
    ['Boats/Repair hull'],
  ]);
  expect(readBookmarks('<A HREF="https://a.example/">A</A></DL></DL>')).toHaveLength(1);
  expect(readBookmarks('')).toEqual([]);
});

it('a page that is no list of bookmarks is none', () => {
  expect(isBookmarkFile('<!DOCTYPE html><title>Bookmarks</title>')).toBe(false);
});

it('goes through a file of deep folders without a stack', () => {
  const deep = '<DL><DT><H3>x</H3>'.repeat(20_000);
  expect(readBookmarks(`${deep}<A HREF="https://a.example/">A</A>`)).toHaveLength(1);
});
