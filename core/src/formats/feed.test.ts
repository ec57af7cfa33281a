import { feedsOfPage, readFeed } from '.';

const URL_OF_FEED = 'https://example.org/feeds/all';

describe('feeds as the specifications show them', () => {
  // RFC 4287, 1.1, the first example.
  it('reads Atom', () => {
    const feed = readFeed(
      `<?xml version="1.0" encoding="utf-8"?>
       <feed xmlns="http://www.w3.org/2005/Atom">
         <title>Example Feed</title><link href="http://example.org/"/><updated>2003-12-13T18:30:02Z</updated>
         <author><name>John Doe</name></author><id>urn:uuid:60a76c80-d399-11d9-b93C-0003939e0af6</id>
         <entry><title>Atom-Powered Robots Run Amok</title><link href="http://example.org/2003/12/13/atom03"/>
           <id>urn:uuid:1225c695-cfb8-4ebb-aaaa-80da344efa6a</id><updated>2003-12-13T18:30:02Z</updated>
           <summary>Some text.</summary></entry>
       </feed>`,
      URL_OF_FEED,
    );
    expect(feed).toEqual({
      title: 'Example Feed',
      siteUrl: 'http://example.org/',
      restMinutes: null,
      entries: [
        {
          key: 'urn:uuid:1225c695-cfb8-4ebb-aaaa-80da344efa6a',
          address: 'http://example.org/2003/12/13/atom03',
          title: 'Atom-Powered Robots Run Amok',
          authors: ['John Doe'],
          publishedAt: null,
          updatedAt: '2003-12-13T18:30:02Z',
          summary: 'Some text.',
        },
      ],
    });
  });

  // RFC 4287, 1.1, from the second example: the link is the alternate one, the content is XHTML, the zone is kept.
  it('tells the links of an Atom entry apart, and reads what is written in markup', () => {
    const feed = readFeed(
      `<feed xmlns="http://www.w3.org/2005/Atom"><title type="text">dive into mark</title>
         <link rel="self" type="application/atom+xml" href="http://example.org/feed.atom"/>
         <link rel="alternate" type="text/html" hreflang="en" href="http://example.org/"/>
         <entry><title>Atom draft-07 snapshot</title>
           <link rel="enclosure" type="audio/mpeg" length="1337" href="http://example.org/audio/ph34r_my_podcast.mp3"/>
           <link rel="alternate" type="text/html" href="http://example.org/2005/04/02/atom"/>
           <id>tag:example.org,2003:3.2397</id><updated>2005-07-31T12:29:29Z</updated>
           <published>2003-12-13T08:29:29-04:00</published>
           <author><name>Mark Pilgrim</name><uri>http://example.org/</uri><email>f8dy@example.com</email></author>
           <content type="xhtml" xml:lang="en"><div xmlns="http://www.w3.org/1999/xhtml"><p><i>[Update: The Atom draft is finished.]</i></p></div></content>
         </entry></feed>`,
      URL_OF_FEED,
    );
    expect(feed?.siteUrl).toBe('http://example.org/');
    expect(feed?.entries[0]).toMatchObject({
      address: 'http://example.org/2005/04/02/atom',
      authors: ['Mark Pilgrim'],
      publishedAt: '2003-12-13T08:29:29-04:00',
      summary: '[Update: The Atom draft is finished.]',
    });
  });

  // RSS 2.0 Specification, its sample file (shortened).
  it('reads RSS 2.0', () => {
    const feed = readFeed(
      `<?xml version="1.0"?><rss version="2.0"><channel><title>Liftoff News</title>
         <link>http://liftoff.msfc.nasa.gov/</link><description>Liftoff to Space Exploration.</description><ttl>60</ttl>
         <item><title>Star City</title><link>http://liftoff.msfc.nasa.gov/news/2003/news-starcity.asp</link>
           <description>How do Americans get ready to work with Russians aboard the International Space Station? They take a crash course in culture, language and protocol at Russia's &lt;a href="http://howe.iki.rssi.ru/GCTC/gctc_e.htm"&gt;Star City&lt;/a&gt;.</description>
           <pubDate>Tue, 03 Jun 2003 09:39:21 GMT</pubDate><guid>http://liftoff.msfc.nasa.gov/2003/06/03.html#item573</guid></item>
         <item><description>Sky watchers in Europe, Asia, and parts of Alaska and Canada will experience a partial eclipse.</description>
           <pubDate>Fri, 30 May 2003 11:06:42 GMT</pubDate><guid>http://liftoff.msfc.nasa.gov/2003/05/30.html#item572</guid></item>
       </channel></rss>`,
      URL_OF_FEED,
    );
    expect(feed).toMatchObject({
      title: 'Liftoff News',
      siteUrl: 'http://liftoff.msfc.nasa.gov/',
      restMinutes: 60,
    });
    expect(feed?.entries[0]).toMatchObject({
      key: 'http://liftoff.msfc.nasa.gov/2003/06/03.html#item573',
      publishedAt: '2003-06-03T09:39:21.000Z',
      summary: expect.stringMatching(/protocol at Russia's Star City\.$/),
    });
    // A guid is the page's address unless it says that it is not.
    expect(feed?.entries[1]).toMatchObject({
      title: null,
      address: 'http://liftoff.msfc.nasa.gov/2003/05/30.html#item572',
    });
  });

  // RDF Site Summary (RSS) 1.0, 3, its example (shortened).
  it('reads RSS 1.0, whose items stand beside the channel', () => {
    const feed = readFeed(
      `<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns:dc="http://purl.org/dc/elements/1.1/"
          xmlns:sy="http://purl.org/rss/1.0/modules/syndication/" xmlns="http://purl.org/rss/1.0/">
         <channel rdf:about="http://www.xml.com/xml/news.rss"><title>XML.com</title><link>http://xml.com/pub</link>
           <sy:updatePeriod>daily</sy:updatePeriod><sy:updateFrequency>4</sy:updateFrequency></channel>
         <item rdf:about="http://xml.com/pub/2000/08/09/xslt/xslt.html"><title>Processing Inclusions with XSLT</title>
           <link>http://xml.com/pub/2000/08/09/xslt/xslt.html</link><dc:creator>A Writer</dc:creator><dc:date>2000-08-09T10:00:00Z</dc:date></item>
       </rdf:RDF>`,
      URL_OF_FEED,
    );
    expect(feed).toMatchObject({ title: 'XML.com', siteUrl: 'http://xml.com/pub', restMinutes: 360 });
    expect(feed?.entries[0]).toMatchObject({
      key: 'http://xml.com/pub/2000/08/09/xslt/xslt.html',
      title: 'Processing Inclusions with XSLT',
      authors: ['A Writer'],
      publishedAt: '2000-08-09T10:00:00Z',
    });
  });

  // JSON Feed 1.1, "Examples", the simple one.
  it('reads JSON Feed', () => {
    const feed = readFeed(
      JSON.stringify({
        version: 'https://jsonfeed.org/version/1.1',
        title: 'My Example Feed',
        home_page_url: 'https://example.org/',
        feed_url: 'https://example.org/feed.json',
        items: [
          { id: '2', content_text: 'This is a second item.', url: 'https://example.org/second-item' },
          { id: '1', content_html: '<p>Hello, world!</p>', url: 'https://example.org/initial-post' },
        ],
      }),
      URL_OF_FEED,
    );
    expect(feed).toMatchObject({ title: 'My Example Feed', siteUrl: 'https://example.org/' });
    expect(feed?.entries.map(({ key, address, summary }) => [key, address, summary])).toEqual([
      ['2', 'https://example.org/second-item', 'This is a second item.'],
      ['1', 'https://example.org/initial-post', 'Hello, world!'],
    ]);
  });
});

describe('feeds as they are (common practice)', () => {
  const rss = (inside: string) => `<rss version="2.0"><channel><title>T</title>${inside}</channel></rss>`;
  const only = (inside: string) => readFeed(rss(`<item>${inside}</item>`), URL_OF_FEED)?.entries[0];

  it.each([
    ['<title>Salt &amp;amp; rope</title>', 'Salt & rope'],
    ['<title><![CDATA[Salt &amp; <b>rope</b>]]></title>', 'Salt & rope'],
    ['<title>Salt & rope</title>', 'Salt & rope'],
    ['<title>Depth < 3 m</title>', 'Depth < 3 m'],
    ['<title>\n  Two\n  lines </title>', 'Two lines'],
  ])('reads the title in %s', (written, title) => {
    expect(only(written)?.title).toBe(title);
  });

  it('keeps what a title of type text looks like', () => {
    const feed = readFeed('<feed><entry><title type="text">The &lt;b&gt; element</title></entry></feed>', URL_OF_FEED);
    expect(feed?.entries[0]?.title).toBe('The <b> element');
  });

  it.each([
    ['<link>/notes/1</link>', 'https://example.org/notes/1'],
    ['<link/><guid>https://example.org/p/2</guid>', 'https://example.org/p/2'],
    ['<guid isPermaLink="false">https://example.org/p/2</guid>', null],
    ['<link>javascript:alert(1)</link>', null],
    ['<atom:link href="https://example.org/p/3"/>', 'https://example.org/p/3'],
    ['<enclosure url="https://example.org/talk.mp3" type="audio/mpeg"/>', 'https://example.org/talk.mp3'],
  ])('finds the page of %s', (written, address) => {
    expect(only(written)?.address).toBe(address);
  });

  it('names authors without their mail', () => {
    expect(
      only('<author>birgit@example.org (Birgit Saltmarsh)</author><dc:creator>Joost</dc:creator>')?.authors,
    ).toEqual(['Birgit Saltmarsh', 'Joost']);
  });

  it('reads on behind what is broken, and does not let entities grow', () => {
    const bomb = `<!DOCTYPE rss [<!ENTITY a "${'x'.repeat(50)}"><!ENTITY b "&a;&a;&a;&a;">]>`;
    const feed = readFeed(
      `\uFEFF  ${bomb}<rss><channel><title>T &b; &nosuch;</title><item><title>One<br></title><link>https://example.org/1</link></item><item><title>Two`,
      URL_OF_FEED,
    );
    expect(feed?.title).toBe('T &b; &nosuch;');
    expect(feed?.entries.map(({ title }) => title)).toContain('Two');
  });

  it.each(['', 'no feed', '<html><body>A page</body></html>', '{"version":"1"}', '{', '<?xml version="1.0"?>'])(
    'says that %j is no feed',
    (source) => {
      expect(readFeed(source, URL_OF_FEED)).toBeNull();
    },
  );

  it('reads what is nested without end', () => {
    const deep = '<b>'.repeat(20_000);
    expect(readFeed(rss(`<item><title>${deep}x</title></item>`), URL_OF_FEED)?.entries).toHaveLength(1);
    expect(only(`<description>${'&lt;i&gt;'.repeat(20_000)}x</description>`)?.summary).toBe('x');
  });

  it('gives up what is nested so deep that reading it would take for ever', () => {
    expect(() => readFeed(rss('<a>'.repeat(80_000)), URL_OF_FEED)).toThrow('nested deeper than');
  });
});

describe('feeds that a page names', () => {
  // RSS Advisory Board, "RSS Autodiscovery 1.0".
  it('finds them, and puts those of comments last', () => {
    expect(
      feedsOfPage(
        `<base href="/blog/"><link rel="alternate" type="application/rss+xml" title="All comments" href="/comments/feed">
         <link rel="alternate" type="application/atom+xml" title="Notes" href="atom.xml">
         <link rel="alternate" hreflang="de" href="/de/"><link rel="stylesheet" href="feed.css">`,
        'https://example.org/',
      ),
    ).toEqual([
      { address: 'https://example.org/blog/atom.xml', title: 'Notes' },
      { address: 'https://example.org/comments/feed', title: 'All comments' },
    ]);
  });
});
