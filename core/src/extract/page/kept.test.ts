import { sanitize } from 'hast-util-sanitize';
import { type HowMuch, TREE_SCHEMA } from '../../model';
import { plainText } from '../../text';
import { extractArticle, joinPages, layoutToTree, markdownToHtml, treeToHtml, treeToMarkdown } from '..';

const sentence = (n: number) =>
  `Sentence ${n} of the story tells something at some length, with a comma in it, and then it comes to its end.`;
const prose = (count: number, from = 1) =>
  Array.from({ length: count }, (_, n) => `<p>${sentence(from + n)}</p>`).join('');
const extract = (body: string, howMuch?: HowMuch, head = '') =>
  extractArticle(
    `<html lang="en"><head><title>T</title>${head}</head><body>${body}</body></html>`,
    'https://x.example/a',
    howMuch,
  );
const htmlOf = (body: string) => treeToHtml(extract(`<article>${prose(2)}${body}${prose(2, 3)}</article>`).tree);

describe('what belongs to a text stays', () => {
  it('footnotes lead to their notes and back', () => {
    const html = htmlOf(
      `<p>A claim.<sup id="fnref:1"><a href="#fn:1">1</a></sup></p><section class="footnotes"><ol><li id="fn:1"><p>The proof of it. <a href="#fnref:1">↩</a></p></li></ol></section>`,
    );
    expect(html).toContain('<sup id="in-1"><a href="#in-2">1</a></sup>');
    expect(html).toContain('<li id="in-2">The proof of it. <a href="#in-1">↩</a></li>');
  });

  it('old anchors are led to as well, links to nothing are only words, and no id of the page comes through', () => {
    const html = htmlOf(
      `<p id="location">See <a href="#there">there</a>, <a href="https://x.example/a#gone">gone</a> and <a href="https://x.example/b#there">elsewhere</a>.</p><a name="there"></a><h2>There</h2><p>It is here that the matter is explained.</p>`,
    );
    expect(html).toContain(
      'See <a href="#in-1">there</a>, gone and <a href="https://x.example/b#there">elsewhere</a>.',
    );
    expect(html).toContain('<h2 id="in-1">There</h2>');
    expect(html).not.toContain('location');
  });

  it('an amount, its measure and what is measured are one line, whatever blocks stand in their spans', () => {
    const line = (amount: string, what: string) =>
      `<li><span>${amount} </span><span><span>tablespoons </span><span><p>${what}</p></span></span></li>`;
    const html = htmlOf(`<ul>${line('2', 'olive oil')}${line('12', 'rye flour')}</ul>`);
    expect(html).toContain('<ul><li>2 tablespoons olive oil</li><li>12 tablespoons rye flour</li></ul>');
    // Paragraphs of an entry stay paragraphs.
    expect(htmlOf(`<ul><li><p>${sentence(7)}</p><p>${sentence(8)}</p></li></ul>`)).toContain('</p><p>');
  });

  it('a list that leads up to its links in words stays; a list of headlines goes', () => {
    const places = ['From an array', 'From a file of lines', 'The paths of a folder', 'Numbers by chance'];
    const led = places.map((each) => `<li>${each} through <a href="/x">the method that is made for it</a>;</li>`);
    const headlines = places.map((each) => `<li><a href="/y">${each} through the method that is made for it</a></li>`);
    expect(htmlOf(`<p>Some of the ways:</p><ul>${led.join('')}</ul>`)).toContain('<li>From an array through');
    expect(htmlOf(`<ul>${headlines.join('')}</ul>`)).not.toContain('From an array');
  });

  it('a small picture that is all of a link is a sign to press, not a picture; one with words about it is', () => {
    const html = htmlOf(
      '<p><a href="/"><img src="home.gif" height="32" alt="home"></a></p><p>Let <a href="/f"><img src="f.png" width="20" height="18" alt="f(x)"> of x</a> be given as it was, in the way that was said.</p>',
    );
    expect(html).not.toContain('home.gif');
    expect(html).toContain('f.png');
  });

  it('formulas stay MathML with their TeX, from behind the picture of them too', () => {
    const math =
      '<math xmlns="http://www.w3.org/1998/Math/MathML" onclick="x()"><semantics><mrow><msup><mi>x</mi><mn>2</mn></msup><mo>+</mo><mi href="javascript:x">y</mi></mrow><annotation encoding="application/x-tex">x^{2}+y</annotation></semantics></math>';
    const shown = '<math alttext="x^{2}+y"><mrow><msup><mi>x</mi><mn>2</mn></msup><mo>+</mo><mi>y</mi></mrow></math>';
    expect(htmlOf(`<p>The sum ${math} is known.</p>`)).toContain(`<p>The sum ${shown} is known.</p>`);
    const hidden = `<span class="f"><span style="display: none">${math}</span><img class="math-fallback" src="f.png" alt="x^{2}+y"></span>`;
    expect(htmlOf(`<p>The sum ${hidden} is known.</p>`)).toContain(`<p>The sum ${shown} is known.</p>`);
    expect(htmlOf('<p>The sum <script type="math/tex">x^2</script> is known.</p>')).toContain(
      'The sum <code>x^2</code> is known.',
    );
  });

  it('ruby, details and definition lists', () => {
    expect(htmlOf('<p>The word <ruby>潮<rp>(</rp><rt>しお</rt><rp>)</rp></ruby> means tide.</p>')).toContain(
      '<ruby>潮<rp>(</rp><rt>しお</rt><rp>)</rp></ruby>',
    );
    expect(htmlOf(`<details><summary>More of it</summary>${prose(1, 9)}</details>`)).toContain(
      `<details><summary>More of it</summary><p>${sentence(9)}</p></details>`,
    );
    expect(htmlOf('<dl><dt>Ebb</dt><dd>It falls.</dd></dl>')).toContain('<dl><dt>Ebb</dt><dd>It falls.</dd></dl>');
  });

  it.each([
    [
      'a video frame',
      '<iframe src="https://video.example/embed/7" title="Caulking a seam" width="560" height="315" allowfullscreen></iframe>',
      '<a href="https://video.example/embed/7" data-card="video" title="Caulking a seam">Video: Caulking a seam (video.example)</a>',
    ],
    [
      'a frame that loads late',
      '<iframe data-src="//video.example/player/8" src="about:blank"></iframe>',
      '<a href="https://video.example/player/8" data-card="video" title="">Video (video.example)</a>',
    ],
    [
      'a video with its picture',
      '<video poster="/p.jpg" controls><source src="/v.mp4"></video>',
      '<img src="https://x.example/p.jpg" alt="">',
    ],
    [
      'a sound',
      '<audio src="/talk.mp3" controls></audio>',
      '<a href="https://x.example/talk.mp3" data-card="sound" title="">Sound (x.example)</a>',
    ],
  ])('%s becomes a card, which takes no room in the plain text', (_what, markup, card) => {
    expect(htmlOf(markup)).toContain(card);
    const { text, tree } = extract(`<article>${prose(2)}${markup}${prose(2, 3)}</article>`);
    expect(text).not.toMatch(/Video|Sound|example/);
    expect(sanitize(tree, TREE_SCHEMA)).toEqual(tree);
    const again = extract(`<article>${treeToHtml(tree)}</article>`);
    expect(again.tree).toEqual(tree);
  });

  it.each([
    '<iframe src="https://social.example/plugins/like?x" width="90" height="20"></iframe>',
    '<iframe src="https://ads.example/embed/banner.html" width="300" height="250"></iframe>',
    '<iframe src="https://count.example/x" style="display:none"></iframe>',
    '<iframe src="javascript:alert(1)" allowfullscreen></iframe>',
    '<iframe srcdoc="<p>x</p>"></iframe>',
    '<video></video>',
  ])('%s becomes nothing', (markup) => expect(htmlOf(markup)).toBe(htmlOf('')));

  it('a small picture that stands in the page itself stays, a placeholder does not', () => {
    const png = `data:image/png;base64,${'iVBORw0KGgo'.repeat(60)}`;
    expect(htmlOf(`<img src="${png}" alt="A">`)).toContain(`<img src="${png}" alt="A">`);
    expect(htmlOf('<img src="data:image/gif;base64,R0lGODlhAQABAAAAACw=" alt="A">')).not.toContain('<img');
    expect(htmlOf(`<img src="data:image/svg+xml;base64,${'PHN2Zz4'.repeat(99)}" alt="A">`)).not.toContain('<img');
    expect(htmlOf(`<img src="data:text/html;base64,${'PHN2Zz4'.repeat(99)}" alt="A">`)).not.toContain('<img');
  });
});

describe('how much is kept', () => {
  const body = `<nav><a href="/">Front page</a></nav><div style="display:none">Secret</div><article><h1>T</h1>${prose(4)}<figure><img src="/a.jpg" alt="A boat"><figcaption>The Tern.</figcaption></figure><p>A small <img src="/i.png" alt="mark"> mark.</p></article><aside>Subscribe to our newsletter <button>Now</button></aside><script>run()</script>`;

  it('words and pictures, or the words alone', () => {
    expect(extract(body).pictureCount).toBe(2);
    const words = extract(body, 'words-only');
    expect(words.pictureCount).toBe(0);
    expect(treeToHtml(words.tree)).not.toContain('img');
    expect(words.text).toContain('The Tern.');
    expect(words.text.match(/Sentence \d/g)).toHaveLength(4);
  });

  it('the whole page is all that it shows, and nothing that it hides', () => {
    const { text, tree } = extract(body, 'whole-page');
    for (const shown of ['Front page', 'Sentence 4', 'Subscribe to our newsletter', 'Now', 'The Tern.'])
      expect(text).toContain(shown);
    expect(text).not.toMatch(/Secret|run\(/);
    expect(sanitize(tree, TREE_SCHEMA)).toEqual(tree);
  });

  it('of an address only, what the page states', () => {
    expect(extract(body, 'address-only')).toMatchObject({
      title: 'T',
      text: '',
      cameThrough: { verdict: 'whole' },
    });
  });

  it('a selected part is all text, a menu too', () => {
    const part = extractArticle(
      '<ul class="related"><li><a href="/1">One</a></li></ul><p onclick=x()>Two</p>',
      'https://x.example/a',
      'selected-part',
    );
    expect(treeToHtml(part.tree)).toBe('<ul><li><a href="https://x.example/1">One</a></li></ul><p>Two</p>');
  });
});

describe('an article in several pages', () => {
  const page = (n: number, links: string) =>
    extractArticle(
      `<html><head><title>Long</title></head><body><article><p class="lead">What all pages of this article say first, at some length, and in full.</p>${prose(4, 4 * n - 3)}<p>Note.<a href="#n">1</a></p><p id="n">The note of page ${n}, which is short.</p></article>${links}</body></html>`,
      n === 1 ? 'https://x.example/long' : `https://x.example/long?page=${n}`,
    );

  it('is joined without doubling, its notes still told apart', () => {
    const joined = joinPages(page(1, ''), [page(2, ''), page(3, '')]);
    expect(joined.text.match(/Sentence \d+ /g)).toEqual(Array.from({ length: 12 }, (_, n) => `Sentence ${n + 1} `));
    expect(joined.text.match(/What all pages/g)).toHaveLength(1);
    expect(treeToHtml(joined.tree)).toMatch(/href="#in-1".*href="#in-p2-1".*id="in-p2-1".*id="in-p3-1"/s);
    expect(sanitize(joined.tree, TREE_SCHEMA)).toEqual(joined.tree);
  });

  it.each([
    ['https://x.example/long', '<a href="/long?page=2">Next</a>', 'https://x.example/long?page=2'],
    ['https://x.example/long?page=2', '<a href="?page=3" rel="next">›</a>', 'https://x.example/long?page=3'],
    [
      'https://x.example/2026/long',
      '<div class="pages"><a href="/2026/long/2">2</a></div>',
      'https://x.example/2026/long/2',
    ],
    ['https://x.example/long.html', '<a class="next" href="long-2.html">Weiter</a>', 'https://x.example/long-2.html'],
    ['https://x.example/long/', '<a href="/long/page/2/">Older page 2</a>', 'https://x.example/long/page/2/'],
    ['https://x.example/long/2', '<a href="/long/1">1</a><a href="/long/3">3</a>', 'https://x.example/long/3'],
    ['https://x.example/long', '<a rel="next" href="/another-article">Next</a>', null],
    ['https://x.example/long', '<a rel="next" href="https://y.example/long?page=2">Next</a>', null],
    ['https://x.example/long', '<a href="/long?page=5">5</a>', null],
    ['https://x.example/part-1', '<a href="/part-2">The story of something else entirely</a>', null],
    ['https://x.example/long', '<a href="javascript:next()">Next</a>', null],
  ])('from %s, %s leads to %s', (address, links, next) =>
    expect(extractArticle(`<body><article>${prose(5)}</article>${links}</body>`, address).nextPageUrl).toBe(next),
  );
});

describe('a page whose text is only in the data of its scripts', () => {
  const sentences = Array.from({ length: 8 }, (_, n) => sentence(n + 1));
  const app = (script: string) => extract(`<div id="app">Loading…</div>${script}`);
  it.each([
    [
      'one string of markup',
      `<script type="application/json">${JSON.stringify({ page: { body: sentences.map((each) => `<p>${each}</p>`).join('') } }).replaceAll('</', '<\\/')}</script>`,
    ],
    [
      'a row of blocks',
      `<script>window.__STATE__ = ${JSON.stringify({ user: null, post: { blocks: sentences.map((text) => ({ type: 'paragraph', text })) } })}; start();</script>`,
    ],
    [
      'text in text',
      `<script>window.data = JSON.parse(${JSON.stringify(JSON.stringify({ text: sentences.join('\n') }))});</script>`,
    ],
  ])('%s', (_form, script) => {
    const { text, cameThrough } = app(script);
    expect(text.match(/Sentence \d of the story/g)).toHaveLength(8);
    expect(cameThrough.verdict).toBe('whole');
  });

  it('code is not taken for prose', () => {
    const code = `var x = {"code": ${JSON.stringify('function (a) { return a; }; if (a) { b(); }. '.repeat(60))}}`;
    expect(app(`<script>${code}</script>`).cameThrough.verdict).toBe('failed');
  });
});

describe('metadata in every form', () => {
  const of = (head: string, body = '') => extract(`${body}<article>${prose(4)}</article>`, undefined, head);
  it.each([
    ['a link', '<link rel="license" href="/cc">', '', 'https://x.example/cc'],
    ['a visible link', '', '<a rel="license" href="https://l.example/by/4.0/">CC BY</a>', 'https://l.example/by/4.0/'],
    [
      'JSON-LD',
      '<script type="application/ld+json">{"@type":"Article","license":"https://l.example/by-sa/"}</script>',
      '',
      'https://l.example/by-sa/',
    ],
    ['nothing', '', '<a href="/cc">licence</a>', null],
  ])('the licence from %s', (_form, head, body, licence) => expect(of(head, body).licenceUrl).toBe(licence));

  it.each([
    ['<meta property="article:modified_time" content="2026-02-03T04:05:06+02:00">', '2026-02-03T04:05:06+02:00'],
    ['<script type="application/ld+json">{"@type":"Article","dateModified":"2026-02-03"}</script>', '2026-02-03'],
    ['', null],
  ])('the day of the last change from %s', (head, date) => expect(of(head).modifiedAt).toBe(date));

  it.each([
    ['<p class="byline">By Ada Quill and Bo Reed</p>', ['Ada Quill', 'Bo Reed']],
    ['<p class="byline">By Ada Quill, Bo Reed and Cy Orme | 3 May 2026</p>', ['Ada Quill', 'Bo Reed', 'Cy Orme']],
    ['<p><span class="author">Ada Quill</span> <span class="author">Bo Reed</span></p>', ['Ada Quill', 'Bo Reed']],
    ['<p class="byline">By Research and Development</p>', ['Research and Development']],
    ['<p class="byline">By: <a href="/q">Ada Quill</a><br>DWT Executive News Editor</p>', ['Ada Quill']],
    ['<p class="byline">By Ada Quill<a href="/">Tidewater.com</a> More from this author</p>', ['Ada Quill']],
    [
      '<div itemscope itemtype="https://schema.org/BlogPosting"><span itemprop="author" itemscope><span itemprop="name">Ada Quill</span></span></div>',
      ['Ada Quill'],
    ],
    ['<div vocab="https://schema.org/" typeof="Article"><span property="author">Ada Quill</span></div>', ['Ada Quill']],
  ])('the authors in %s', (body, authors) => expect(of('', body).authors).toEqual(authors));

  it.each([
    ['<meta name="publish_date" content="2026-02-03">', '2026-02-03'],
    ['<meta name="site.pubdate" content="20260203">', '2026-02-03'],
    ['<meta name="Search.Updated" content="2026-02-03">', null],
  ])('the day from a name that a site made up: %s', (head, date) => expect(of(head).publishedAt).toBe(date));

  it('the author from a name that a site made up', () =>
    expect(of('<meta name="Search.Byline" content="Ada Quill">').authors).toEqual(['Ada Quill']));

  it('nobody in particular is no author', () => {
    expect(of('<meta name="author" content="admin">').authors).toEqual([]);
    expect(
      of('<script type="application/ld+json">{"@type":"Article","author":{"name":"Admin"}}</script>').authors,
    ).toEqual([]);
  });
});

it('Markdown is HTML, with what GFM adds to it', () => {
  const html = markdownToHtml('# A\n\nb *c* ~~d~~\n\n| e |\n|---|\n| f |\n\n- [x] g');
  expect(html).toContain('<em>c</em> <del>d</del>');
  expect(html).toContain('<td>f</td>');
  const { tree } = extract(
    `<article>${prose(3)}<table><tr><th>A</th><th>B</th></tr><tr><td>1</td><td>2</td></tr></table></article>`,
  );
  expect(treeToMarkdown(tree)).toMatch(/\| A\s+\| B\s+\|/);
});

describe('laid-out pages', () => {
  const line = (text: string, x: number, y: number, size = 10) => ({
    text,
    x,
    y,
    width: text.length * size * 0.5,
    size,
  });
  const page = (items: ReturnType<typeof line>[]) => ({ width: 600, height: 800, items });
  const blocks = (...pages: ReturnType<typeof page>[]) => plainText(layoutToTree(pages)).text.split('\n\n');

  it('joins hyphenated words, and lines into paragraphs by their gaps', () => {
    expect(
      blocks(
        page([
          line('Boats that misunder-', 50, 700),
          line('stand the tide are lost.', 50, 688),
          line('Another one begins here.', 50, 664),
          line('It goes on.', 50, 652),
        ]),
      ),
    ).toEqual(['Boats that misunderstand the tide are lost.', 'Another one begins here. It goes on.']);
  });

  it('reads columns one after the other, under a headline over both', () => {
    const column = (x: number, name: string) =>
      Array.from({ length: 8 }, (_, n) => line(`${name} line ${n} of the text goes on`, x, 600 - 12 * n));
    expect(blocks(page([line('A headline', 50, 650, 20), ...column(50, 'left'), ...column(320, 'right')]))).toEqual([
      'A headline',
      [
        ...Array.from({ length: 8 }, (_, n) => `left line ${n} of the text goes on`),
        ...Array.from({ length: 8 }, (_, n) => `right line ${n} of the text goes on`),
      ].join(' '),
    ]);
  });

  it('leaves out running heads, feet and page numbers', () => {
    const sheet = (n: number) =>
      page([
        line('The Slipway, volume 3', 50, 770),
        line(`Words of page ${n}.`, 50, 700),
        line('They go on.', 50, 688),
        line(String(n), 300, 30),
      ]);
    expect(blocks(sheet(1), sheet(2), sheet(3)).join(' ')).toBe(
      'Words of page 1. They go on. Words of page 2. They go on. Words of page 3. They go on.',
    );
  });

  it('stands an empty page', () => expect(layoutToTree([page([])]).children).toEqual([]));
});
