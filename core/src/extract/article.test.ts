import type { ArrivalSign, CameThrough } from '../model';
import { plainText } from '../text';
import { extractArticle, treeToHtml, treeToMarkdown } from '.';

const prose = (n: number) =>
  Array.from(
    { length: n },
    (_, i) =>
      `<p>Paragraph ${i + 1} says something, at some length, so that it is taken for prose; and then it ends.</p>`,
  ).join('');
const page = (body: string, head = '') => `<!doctype html><html><head>${head}</head><body>${body}</body></html>`;
const at = (html: string, url = 'https://site.example/path/page.html') => extractArticle(html, url);

describe('main text', () => {
  it('leaves menus, boxes, comments and footers out, and keeps all paragraphs', () => {
    const { text } = at(
      page(`<nav><a href=/>Home</a></nav><div class="content"><h1>Title</h1>${prose(3)}<div class="newsletter-signup"><p>Leave your address, and we will write to you now and then.</p></div>${prose(2)}
        <div class="comments"><p>I do not agree with this, and I want everybody to know it.</p></div></div><aside class="sidebar">${prose(1)}</aside><footer>© nobody</footer>`),
    );
    expect(text.match(/Paragraph/g)).toHaveLength(5);
    expect(text).not.toMatch(/Leave your address|do not agree|Home|nobody/);
  });

  it.each([
    ['an article column called "sidebar"', `<div class="sidebar">${prose(8)}</div>`],
    ['a form around the whole page', `<form>${prose(8)}</form>`],
    [
      'a page without any blocks',
      Array.from({ length: 8 }, (_, i) => `Paragraph ${i + 1}, with words, and more of them, stands here.`).join(
        '<br><br>',
      ),
    ],
    [
      'a layout table',
      `<table><tr><td class="menu"><a href=a>A</a><a href=b>B</a></td><td>${prose(8)}</td></tr></table>`,
    ],
  ])('finds the text in %s', (_name, body) => {
    expect(at(page(body)).text.match(/Paragraph/g)).toHaveLength(8);
  });

  it('does not take long comments for a short article', () => {
    const comments = `<div id="comments"><h3>90 comments</h3>${prose(30).replaceAll('Paragraph', 'Opinion')}</div>`;
    const { text } = at(page(`<div class="post">${prose(6)}</div>${comments}`));
    expect(text.match(/Paragraph/g)).toHaveLength(6);
    expect(text).not.toContain('Opinion');
  });

  it('takes the lead picture and the standfirst from between headline and text', () => {
    const { tree, text } = at(
      page(
        `<main><h1>T</h1><p class="standfirst">What the article is about, in a sentence of some length.</p><figure><img src="lead.jpg" width="800" alt="Lead"></figure><div class="body">${prose(6)}</div></main>`,
        '<title>T</title>',
      ),
    );
    expect(text.startsWith('What the article is about')).toBe(true);
    expect(JSON.stringify(tree)).toContain('https://site.example/path/lead.jpg');
  });

  it('keeps lists, tables, quotations, code with its line breaks, and definition lists', () => {
    const { tree } = at(
      page(`<article>${prose(3)}<ul><li>one</li><li>two <ul><li>inner</li></ul></li></ul><table><tr><th>Day</th><th>Range</th></tr><tr><td>Mon</td><td>4 m</td></tr></table>
        <blockquote><p>Quoted words.</p></blockquote><pre><code class="language-ts">const a = 1;\n  const b = 2;</code></pre><dl><dt>Term</dt><dd>Meaning</dd></dl>${prose(2)}</article>`),
    );
    const markdown = treeToMarkdown(tree);
    expect(markdown).toContain('- one');
    expect(markdown).toContain('  - inner');
    expect(markdown).toMatch(/\| Day\s+\| Range\s+\|/);
    expect(markdown).toContain('> Quoted words.');
    expect(markdown).toContain('```ts\nconst a = 1;\n  const b = 2;\n```');
    expect(plainText(tree).text).toContain('Term\n\nMeaning');
  });

  it('makes addresses absolute, by the base element too, and drops links that lead nowhere', () => {
    const { tree } = at(
      page(
        `<article>${prose(2)}<p>See <a href="other">that</a>, <a href="#note">this</a> and <a href="javascript:alert(1)">him</a>, all three of them.</p></article>`,
        '<base href="/deep/er/">',
      ),
    );
    const json = JSON.stringify(tree);
    expect(json).toContain('https://site.example/deep/er/other');
    expect(json.match(/"href"/g)).toHaveLength(1);
  });
});

describe('pictures', () => {
  // Delayed loading as sites write it: common practice. srcset: WHATWG HTML, 4.8.4.
  test.each([
    ['a plain src', '<img src="a.jpg" alt="A">', 'a.jpg'],
    ['data-src over a placeholder', '<img src="data:image/gif;base64,xx" data-src="a.jpg">', 'a.jpg'],
    ['data-lazy-src over a blank', '<img src="/blank.gif" data-lazy-src="a.jpg">', 'a.jpg'],
    [
      'the srcset candidate nearest above 1,280',
      '<img src="s.jpg" srcset="s.jpg 320w, m.jpg 1400w, l.jpg 2800w">',
      'm.jpg',
    ],
    ['the largest when none is wide enough', '<img srcset="s.jpg 320w, m.jpg 800w">', 'm.jpg'],
    ['data-srcset', '<img src="/placeholder.png" data-srcset="a.jpg 1x, b.jpg 2x">', 'b.jpg'],
    ['a picture element', '<picture><source srcset="w.webp 1280w" type="image/webp"><img alt="x"></picture>', 'w.webp'],
    [
      'a noscript twin',
      '<img class="lazy" src="data:image/gif;base64,xx"><noscript><img src="a.jpg"></noscript>',
      'a.jpg',
    ],
  ])('reads %s', (_name, markup, file) => {
    const { tree, pictureCount } = at(page(`<article>${prose(2)}<p>${markup}</p>${prose(2)}</article>`));
    expect(pictureCount).toBe(1);
    expect(JSON.stringify(tree)).toContain(`"src":"https://site.example/path/${file}"`);
  });

  it('drops tracking pixels', () => {
    expect(
      at(page(`<article>${prose(3)}<img src="https://t.example/p.gif" width=1 height=1></article>`)).pictureCount,
    ).toBe(0);
  });
});

describe('metadata', () => {
  const jsonLd = (value: unknown) =>
    `<script type="application/ld+json">${typeof value === 'string' ? value : JSON.stringify(value)}</script>`;
  // schema.org Article; Open Graph protocol; Dublin Core in HTML (DCMI).
  test.each([
    [
      'JSON-LD in a graph',
      jsonLd({
        '@graph': [
          { '@type': 'WebSite', name: 'Not this' },
          {
            '@type': ['NewsArticle'],
            headline: 'Right &amp; good',
            datePublished: '2026-03-04T05:06:07+01:00',
            author: [{ name: 'Ann' }, { name: 'Bo' }],
            publisher: { name: 'Site' },
          },
        ],
      }),
      {
        title: 'Right & good',
        authors: ['Ann', 'Bo'],
        siteName: 'Site',
        publishedAt: '2026-03-04T05:06:07+01:00',
      },
    ],
    [
      'broken JSON-LD',
      jsonLd('<!-- {"@type":"Article","headline":"With a\nbreak","author":"Ann",} -->'),
      { title: 'With a break', authors: ['Ann'] },
    ],
    [
      'Open Graph',
      '<meta property="og:title" content="T - Site"><meta property="og:site_name" content="Site"><meta property="article:published_time" content="2026-03-04T05:06:07Z"><meta name="author" content="By Ann">',
      { title: 'T', authors: ['Ann'], siteName: 'Site', publishedAt: '2026-03-04T05:06:07Z' },
    ],
    [
      'Dublin Core',
      '<meta name="DC.title" content="T"><meta name="DC.creator" content="Ann"><meta name="DC.date.issued" content="2026-03-04">',
      { title: 'T', authors: ['Ann'], publishedAt: '2026-03-04' },
    ],
    [
      'a title with the site behind a bar',
      '<title>A longer title here | The Site</title>',
      { title: 'A longer title here' },
    ],
    ['a title with a hyphen of its own', '<title>Half-timbered houses</title>', { title: 'Half-timbered houses' }],
    ['a date that is spelled out', '<meta name="date" content="4 March 2026">', { publishedAt: '2026-03-04' }],
    [
      'an author given as an address',
      '<meta property="article:author" content="https://social.example/ann">',
      { authors: [] },
    ],
    ['nothing', '', { title: null, authors: [], siteName: 'site.example', publishedAt: null }],
  ])('%s', (_name, head, expected) => {
    expect(at(page(`<article>${prose(3)}</article>`, head))).toMatchObject(expected);
  });

  it.each([
    ['Silt | Tidewater', 'Silt', 'Silt'],
    [
      'Skerrow — Boats, bread and eelgrass — The most northerly of all',
      'Skerrow',
      'Skerrow — Boats, bread and eelgrass — The most northerly of all',
    ],
    ['Weekly Edition for March 26 [site.org]', 'Site', 'Weekly Edition for March 26'],
    ['Tide closes the pier - COURIER NewsFeed', 'Menu', 'Tide closes the pier'],
  ])('of “%s” under a heading “%s” the title is “%s”', (title, heading, wanted) => {
    const head = `<title>${title}</title><meta property="og:site_name" content="Courier.com">`;
    expect(at(page(`<h1>${heading}</h1>${prose(4)}`, head)).title).toBe(wanted);
  });

  it.each([
    ['Larch or oak for a boat | The Yard', 'What hulls are made of', 'Larch or oak for a boat'],
    ['Larch or oak for a boat | The Yard', 'Larch or oak for a boat', 'Larch or oak for a boat'],
    ['The Yard', 'What hulls are made of', 'What hulls are made of'],
  ])('of the title %s and the shared title %s, under a headline, it is %s', (title, shared, taken) => {
    const head = `<title>${title}</title><meta property="og:title" content="${shared}">`;
    expect(at(page(`<h1>Larch or oak for a boat</h1>${prose(4)}`, head)).title).toBe(taken);
  });

  it('keeps a shared title that the page itself shows under a longer title', () => {
    const head = '<title>A second keel laid in Skerrow</title><meta property="og:title" content="The yard opens">';
    const body = `<h1>A second keel laid in Skerrow</h1><h2>The Yard Opens</h2>${prose(4)}`;
    expect(at(page(body, head)).title).toBe('The yard opens');
  });

  it('takes the site’s name from what the title has besides the headline', () => {
    expect(at(page(`<h1>Larch or oak</h1>${prose(4)}`, '<title>Larch or oak | The Slipway</title>'))).toMatchObject({
      title: 'Larch or oak',
      siteName: 'The Slipway',
    });
    expect(at(page(`<h1>Larch or oak</h1>${prose(4)}`, '<title>Larch or oak</title>')).siteName).toBe('site.example');
  });

  it.each([
    ['<div>By <a href="/p">Ilse Marrow</a></div><div>14 March 2024</div>', ['Ilse Marrow']],
    ['<i>Interview by Per Aldous, Spring 2003</i>', ['Per Aldous']],
    ['<p>Par Basile Courtois, le 3 mai 2023 à 8h12</p>', ['Basile Courtois']],
    ['<p>Posted on April 2, 2018 by Wat Tiller in Metal</p>', ['Wat Tiller']],
    ['<div><a href="/b">Co-authored by Bettan Rusk</a> <span>Last updated: June 8, 2022</span></div>', ['Bettan Rusk']],
    ['<p>Photographs and text by Ulla Hensing</p>', ['Ulla Hensing']],
    ['<p>By Ada Quill March 14, 2024</p>', ['Ada Quill']],
    ['<p>Posted on April 2, 2018 by the harbour</p>', []],
    ['<p><span>Text: Siv Lodén</span> <span>Foto: Arvid Brä</span></p>', ['Siv Lodén']],
    ['<div>Aud Solberg — 4 min read — Jan 9, 2022</div>', ['Aud Solberg']],
    ['<p>By Imke Strand<br>Illustration by Paul Oster</p>', ['Imke Strand']],
    ['<div>作者:林青 2019-06-11 阅读(1203)</div>', ['林青']],
    ['<font>By Hob Trask, staff writer<br>Monday, May 7, 2001</font>', ['Hob Trask']],
  ])('finds who wrote it in %s', (line, authors) => {
    expect(at(page(`<h1>Larch or oak</h1><div>${line}</div>${prose(4)}`)).authors).toEqual(authors);
  });

  // JSON-LD 1.1, 3.3: a node that is described elsewhere is referred to by its @id.
  it('takes people and bodies that the page’s data refers to', () => {
    const graph = {
      '@graph': [
        { '@type': 'Article', headline: 'Larch', author: { '@id': '#p' }, publisher: { '@id': '#o' } },
        { '@type': 'Person', '@id': '#p', name: 'Dot' },
        { '@type': 'Organization', '@id': '#o', name: 'The Slipway' },
      ],
    };
    const head = `<script type="application/ld+json">${JSON.stringify(graph)}</script>`;
    expect(at(page(`<h1>Larch</h1>${prose(4)}`, head))).toMatchObject({
      authors: ['Dot'],
      siteName: 'The Slipway',
    });
    const fuller = `${head}<meta name="author" content="Dot Ferrers">`;
    expect(at(page(`<h1>Larch</h1>${prose(4)}`, fuller)).authors).toEqual(['Dot Ferrers']);
  });

  // Highwire Press tags, as journals write them: one for each author, the family name first.
  it('takes all authors that a journal names, as they are said', () => {
    const head =
      '<meta name="citation_author" content="Okonjo-Hale, Adaeze"><meta name="citation_author" content="Prys, Emlyn">';
    expect(at(page(`<h1>Larch</h1>${prose(4)}`, head)).authors).toEqual(['Adaeze Okonjo-Hale', 'Emlyn Prys']);
  });

  it('takes two names that stand in one for two people', () => {
    const head = '<meta name="dc.creator" content="Ada Quill, Bo Reed">';
    expect(at(page(`<h1>Larch</h1>${prose(4)}`, head)).authors).toEqual(['Ada Quill', 'Bo Reed']);
  });

  it.each([
    ['Interview: the woman who maps holes', 'The woman who maps holes', 'site.example'],
    ['Site: the woman who maps holes', 'The woman who maps holes', 'Site'],
    ['The price of a hedge - by Nell Ardagh - Field Edge', 'The price of a hedge', 'Field Edge'],
  ])('of the title “%s” the site is called so', (title, heading, wanted) => {
    expect(at(page(`<h1>${heading}</h1>${prose(4)}`, `<title>${title}</title>`)).siteName).toBe(wanted);
  });

  describe('a blog that has its own name in every title', () => {
    const masthead = '<header><h1><a href="/">Salt and Rope</a></h1><p>A boatyard’s blog</p></header>';
    const post = (title: string, of: number) =>
      `<div class="post"><h2><a href="/posts/${of}.html">${title}</a></h2>${prose(of)}</div>`;
    const titled = (body: string) =>
      at(
        page(`${masthead}<h3>Pages</h3><ul><li><a href="/about">About</a></ul>${body}`, '<title>Salt and Rope</title>'),
      );

    it('has the headline of the post that stands alone', () => {
      expect(titled(post('Larch or oak', 6))).toMatchObject({ title: 'Larch or oak', siteName: 'Salt and Rope' });
      const named = `<div class="c"><h3>Tides</h3></div><div><h3 class="entry-title">Larch or oak</h3>${prose(6)}<h3>Comments</h3></div>`;
      expect(titled(named).title).toBe('Larch or oak');
    });

    it('keeps its name where several posts stand', () => {
      expect(titled(post('Larch or oak', 6) + post('A wet winter', 7)).title).toBe('Salt and Rope');
      expect(titled(`<h2>Larch or oak</h2>${prose(6)}`).title).toBe('Salt and Rope');
    });
  });

  it('reads what is only visible', () => {
    const article = at(
      page(
        `<article><h1>Seen</h1><p class="byline">By <a rel="author" href="/ann">Ann Lee</a></p><time datetime="2026-01-02">2 January</time>${prose(3)}</article>`,
      ),
    );
    expect(article).toMatchObject({ title: 'Seen', authors: ['Ann Lee'], publishedAt: '2026-01-02' });
    expect(article.text).not.toContain('Seen');
  });
});

const CONSENT =
  '<div><h2>Your privacy matters</h2><p>We and our 214 partners store cookies on your device and process personal data. You can change your choices at any time.</p><button>Accept all</button></div>';
const ABOUT_SITE =
  'Links to other places are given for reference, and the paper is not responsible for what is written there by others.';
const PLACES = '<div class="top"><a href="/">Home</a> <a href="/news">News</a> <a href="/sport">Sport</a></div>';
const LEGAL =
  'Links to other places are given for reference purposes, and the Gazette is not responsible for them. Copyright © 2026 Gazette Ventures. <a href="/terms">Terms</a> <a href="/privacy">Privacy</a>';
const NOTE =
  'The river rose in the night and stood a foot high in the mill, the miller says, and it went down again before anybody had carried out a sack.';

describe('the came-through check', () => {
  const short = '<p>A few words only stand here.</p>';
  test.each<[string, CameThrough['verdict'], ArrivalSign['code'][], string]>([
    ['a whole page', 'whole', [], page(`<article>${prose(8)}</article>`)],
    ['a very short note', 'whole', [], page(`<article>${short}</article>`)],
    [
      'a page that script builds',
      'failed',
      ['script-built'],
      page(
        '<div id="app"></div><noscript>Please enable JavaScript to run this app.</noscript>',
        `<script>${'x'.repeat(20_000)}</script>`,
      ),
    ],
    [
      'a sign-in',
      'failed',
      ['sign-in'],
      page('<h1>Sign in</h1><form><input name=n><input type=password><button>Log in</button></form>'),
    ],
    [
      'a consent wall',
      'failed',
      ['consent'],
      page('<div class="wall"><h2>We value your privacy</h2><p>Accept all cookies to go on.</p></div>'),
    ],
    [
      'a box without a name that asks for consent, with what the site says of itself below it',
      'failed',
      ['consent'],
      page(`${CONSENT}<div><p>${ABOUT_SITE}</p></div>`, '<title>A flood at the mill</title>'),
    ],
    [
      'such a box, which says more than the words of its site that are left',
      'failed',
      ['consent'],
      page(`${PLACES}${CONSENT}<div class="legal">${LEGAL}</div>`, '<title>A flood at the mill</title>'),
    ],
    [
      'such a box over more of them, with no headline of what the page is called',
      'failed',
      ['consent'],
      page(`${PLACES}${CONSENT}<div class="legal">${LEGAL} ${LEGAL}</div>`, '<title>A flood at the mill</title>'),
    ],
    [
      'a short note under such a box',
      'whole',
      [],
      page(
        `<main><h1>A flood at the mill</h1><p>${NOTE}</p><p>${NOTE}</p></main>${CONSENT}`,
        '<title>A flood at the mill</title>',
      ),
    ],
    [
      'a shorter one without a headline',
      'whole',
      [],
      page(`<article><p>${NOTE}</p></article>${CONSENT}`, '<title>Ane, on Sunday morning</title>'),
    ],
    [
      'an error page served as 200',
      'failed',
      ['error-page'],
      page('<h1>404</h1><p>The page you are looking for does not exist.</p>', '<title>Page not found</title>'),
    ],
    [
      'a captcha',
      'failed',
      ['captcha'],
      page('<p>Checking your browser before you go on. Please solve the captcha.</p>'),
    ],
    [
      'a parked domain',
      'failed',
      ['parked'],
      page('<h1>slipway.example</h1><p>This domain is for sale. Buy this domain.</p>'),
    ],
    ['an empty page', 'failed', ['empty'], page('')],
    [
      'a paywall that says so',
      'partial',
      ['paywall'],
      page(
        `<article>${prose(8)}</article><div class="paywall">Subscribe to continue reading. Already a subscriber?</div>`,
        '<script type="application/ld+json">{"@type":"NewsArticle","headline":"T","isAccessibleForFree":false}</script>',
      ),
    ],
    [
      'a text that ends at a subscription notice',
      'partial',
      ['paywall-notice'],
      page(`<article>${prose(3)}<p>To continue reading, start your free trial.</p></article>`),
    ],
    [
      'a text far shorter than the page states',
      'partial',
      ['shorter-than-stated'],
      page(
        `<article>${prose(5)}</article>`,
        '<script type="application/ld+json">{"@type":"NewsArticle","headline":"T","wordCount":2400}</script>',
      ),
    ],
    [
      'an article that speaks of sign-ins, captchas and errors',
      'whole',
      [],
      page(
        `<article>${prose(8)}<p>Error 404 means that a page is not found; a captcha asks whether you are human, and cookie consent is asked for before you sign in or subscribe.</p></article>`,
      ),
    ],
  ])('of %s says %s', (_what, verdict, signs, html) => {
    const { cameThrough } = at(html);
    expect(cameThrough.verdict).toBe(verdict);
    expect(cameThrough.signs.map(({ code }) => code)).toEqual(signs);
  });
});

describe('links in code', () => {
  const codeIn = (pre: string) => {
    const prose =
      '<p>A sentence of the manual tells at some length what the function takes, and what it gives.</p>'.repeat(4);
    const { tree } = extractArticle(
      `<html><body><article><h1>Option</h1>${prose}${pre}${prose}</article></body></html>`,
      'https://docs.example/std/option.html',
    );
    return /<pre>.*<\/pre>/s.exec(treeToHtml(tree))?.[0];
  };

  it('lead where they led, and the words stay as they are', () => {
    expect(
      codeIn(
        '<pre class="language-rust">\n<code>fn <b>take</b>(x: <a href="Vec.html">Vec</a>) -> <a href="/o">Option</a>\r\n</code></pre>',
      ),
    ).toBe(
      '<pre><code class="language-rust">fn take(x: <a href="https://docs.example/std/Vec.html">Vec</a>) -> <a href="https://docs.example/o">Option</a></code></pre>',
    );
  });

  it('that lead to the line itself, or run something, are its words', () => {
    expect(
      codeIn('<pre><a href="#L1" id="L1">1</a> let <a href="javascript:go()">a</a> = <a href="/x"></a>2;</pre>'),
    ).toBe('<pre><code>1 let a = 2;</code></pre>');
  });
});
