import { comeBackAtom, type ComeBackEntry, comeBackJsonFeed, dailyLetter, readFeed } from '.';
import { parseBookHtml, within } from './xml';

const entry = (change: Partial<ComeBackEntry> = {}): ComeBackEntry => ({
  itemId: '019a0000-0000-7000-8000-000000000001',
  title: 'What the eelgrass knows',
  source: 'Tidewater Quarterly',
  reason: 'saved 6 weeks ago',
  length: '4 min',
  href: 'https://library.example/queue/019a0000-0000-7000-8000-000000000001',
  ...change,
});
const facts = {
  day: 'Saturday, 28 November',
  parts: [
    { heading: 'Come back', entries: [entry()] },
    { heading: 'Go on with', entries: [] },
  ],
  tasks: ['Ask Birgit about the larch'],
  settings: 'https://library.example/reminders',
};
const elementsOf = (html: string, name: string) =>
  parseBookHtml(html).children.flatMap((node) => ('attribs' in node ? within(node, name) : []));

describe('the daily letter', () => {
  it('tells in text and in HTML what has come back, how long it takes and why, and where it stands', () => {
    const { subject, text, html } = dailyLetter(facts);
    expect(subject).toBe('For Saturday, 28 November: What the eelgrass knows');
    for (const words of [entry().title, entry().source, '4 min', 'saved 6 weeks ago', entry().href, facts.tasks[0]!]) {
      expect(text).toContain(words);
      expect(html).toContain(words);
    }
    // What has nothing in it is not spoken of.
    expect(text + html).not.toMatch(/go on with/i);
    expect(elementsOf(html, 'a').map(({ attribs }) => attribs.href)).toEqual([entry().href, facts.settings]);
  });

  it('takes nobody’s words for markup, and lets none of them into its head', () => {
    const hostile = entry({
      title: '<script>alert(1)</script>\r\nBcc: everybody@example.org',
      source: '"><img src=x onerror=alert(1)>',
      href: 'https://library.example/queue/1?a="b"&c=<d>',
    });
    const { subject, html } = dailyLetter({
      ...facts,
      parts: [{ heading: 'Come back', entries: [hostile] }],
      tasks: ['<b onclick=x>do</b>'],
    });
    expect(subject).not.toMatch(/[\r\n]/);
    for (const name of ['script', 'img', 'b']) expect(elementsOf(html, name)).toEqual([]);
    expect(elementsOf(html, 'a')[0]?.attribs.href).toBe(hostile.href);
  });
});

describe('the feed of what comes back', () => {
  const at = Date.UTC(2026, 10, 28, 6);
  const feed = {
    address: 'https://library.example/come-back/secret/feed.atom',
    home: 'https://library.example/now',
    entries: [
      { ...entry({ title: 'Tides & eelgrass' }), day: '2026-11-28', at },
      { ...entry(), day: '2026-11-27', at: at - 86_400_000 },
    ],
  };

  // RFC 4287 and JSON Feed 1.1, as the reader of feeds here understands them, which is measured on other people's feeds.
  it.each([
    ['Atom', comeBackAtom(feed)],
    ['JSON Feed', comeBackJsonFeed(feed)],
  ])('is read as %s', (_name, written) => {
    const read = readFeed(written, feed.address);
    expect(read?.entries.map(({ title, address, publishedAt }) => [title, address, publishedAt])).toEqual([
      ['Tides & eelgrass', entry().href, new Date(at).toISOString()],
      ['What the eelgrass knows', entry().href, new Date(at - 86_400_000).toISOString()],
    ]);
  });

  it('has in Atom what every feed and entry must have (RFC 4287, 4.1.1 and 4.1.2), each id only once', () => {
    const written = comeBackAtom(feed);
    for (const name of ['id', 'title', 'updated'])
      expect(written.match(new RegExp(`<${name}>`, 'g'))).toHaveLength(1 + feed.entries.length);
    expect(written).toContain('<author><name>');
    const ids = [...written.matchAll(/<id>([^<]+)/g)].map(([, id]) => id);
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('is a feed also when nothing has come back yet', () => {
    expect(readFeed(comeBackAtom({ ...feed, entries: [] }), feed.address)?.entries).toEqual([]);
    expect(JSON.parse(comeBackJsonFeed({ ...feed, entries: [] }))).toMatchObject({ items: [] });
  });
});
