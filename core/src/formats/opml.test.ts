import fc from 'fast-check';
import { readOpml, type Subscription, writeOpml } from '.';

// OPML 2.0, "Subscription lists": the form of its example.
const LIST = `<?xml version="1.0" encoding="ISO-8859-1"?>
<opml version="2.0"><head><title>mySubscriptions.opml</title></head><body>
  <outline text="CNET News.com" description="Tech news" htmlUrl="http://news.com.com/" title="CNET News.com" type="rss" version="RSS2" xmlUrl="http://news.com.com/2547-1_3-0-5.xml"/>
  <outline text="Water"><outline text="Tides"><outline type="rss" text="Slack &amp; flood" xmlurl="https://example.org/tides"/></outline>
    <outline text="A note that is no feed"/></outline>
  <outline type="rss" text="again" xmlUrl="http://news.com.com/2547-1_3-0-5.xml"/>
</body></opml>`;

describe('lists of subscriptions', () => {
  it('are read with their folders, each feed once', () => {
    expect(readOpml(LIST)).toEqual([
      {
        title: 'CNET News.com',
        address: 'http://news.com.com/2547-1_3-0-5.xml',
        siteUrl: 'http://news.com.com/',
        folders: [],
      },
      {
        title: 'Slack & flood',
        address: 'https://example.org/tides',
        siteUrl: null,
        folders: ['Water', 'Tides'],
      },
    ]);
  });

  it('are told from what is none', () => {
    expect(readOpml('<rss><channel/></rss>')).toBeNull();
    expect(readOpml('')).toBeNull();
    expect(readOpml('<opml version="2.0"></opml>')).toEqual([]);
  });

  it('come back as they were written', () => {
    const words = fc
      .string({
        unit: fc.constantFrom('a', 'é', '浪', '&', '<', '>', '"', "'", ' '),
        minLength: 1,
        maxLength: 12,
      })
      .map((each) => each.trim())
      .filter(Boolean);
    const subscription: fc.Arbitrary<Subscription> = fc.record({
      title: words,
      address: fc.webUrl({ withQueryParameters: true }),
      siteUrl: fc.option(fc.webUrl()),
      folders: fc.array(words, { maxLength: 2 }),
    });
    fc.assert(
      fc.property(fc.uniqueArray(subscription, { selector: ({ address }) => address, maxLength: 8 }), (list) => {
        const read = readOpml(writeOpml('Mine', 0, list)) ?? [];
        const byAddress = (all: readonly Subscription[]) => [...all].sort((a, b) => (a.address < b.address ? -1 : 1));
        expect(byAddress(read)).toEqual(byAddress(list));
      }),
    );
  });
});
