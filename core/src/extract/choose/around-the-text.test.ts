import { extractArticle, treeToMarkdown } from '..';

const sentence = (n: number) =>
  `Sentence ${n} of the story tells something at some length, with a comma in it, and then it comes to its end.`;
const prose = (count: number, from = 1) =>
  Array.from({ length: count }, (_, n) => `<p>${sentence(from + n)}</p>`).join('');
const article = (body: string) =>
  extractArticle(
    `<html lang="en"><head><title>The frozen harbour</title></head><body><header><nav><a href="/">Home</a></nav></header><main><article><h1>The frozen harbour</h1>${body}</article></main></body></html>`,
    'https://x.example/a',
  );
const markdownOf = (body: string) => treeToMarkdown(article(body).tree);

describe('what a page folds until it is pressed', () => {
  const fold = (question: string, answer: string, how: string) =>
    how === 'by its id'
      ? `<h3><button aria-expanded="false" aria-controls="${question}">${question}?</button></h3><p>–</p><div id="${question}" style="color: red; display: none"><p>${answer}</p></div>`
      : `<div><button aria-expanded="false">${question}?</button><div hidden aria-hidden="true"><p>${answer}</p></div></div>`;

  // WAI-ARIA Authoring Practices Guide, accordion and disclosure.
  it.each(['by its id', 'behind its button'])('comes through with its questions, found %s', (how) => {
    const text = markdownOf(`${prose(2)}${['Who', 'Why'].map((each, n) => fold(each, sentence(5 + n), how)).join('')}`);
    expect(text).toMatch(/### Who\?\s+(?:–\s+)?Sentence 5 [^#]*### Why\?\s+(?:–\s+)?Sentence 6 /);
  });

  it('stays away where it is a menu, a single hint, or hidden by no button', () => {
    const menu = `<button aria-expanded="false">Places</button><ul hidden>${'<li><a href="/x">A place that is far away from all others</a></li>'.repeat(4)}</ul>`;
    expect(markdownOf(`${prose(3)}${menu}${menu}`)).not.toContain('far away');
    expect(markdownOf(`${prose(3)}${fold('Who', sentence(7), 'behind its button')}`)).not.toContain('Sentence 7');
    expect(markdownOf(`${prose(3)}${`<div hidden><p>${sentence(8)}</p></div>`.repeat(2)}`)).not.toContain('Sentence 8');
  });
});

describe('what stands around a text', () => {
  it('signs of permanent links go from headings, before their words too', () => {
    const text = markdownOf(
      `${prose(1)}<h2 id="b"><a href="#b">#</a> What was done</h2>${prose(2)}<h2 id="c">Who paid <a href="#c">¶</a></h2>${prose(1)}`,
    );
    expect(text).toContain('## What was done\n');
    expect(text).toContain('## Who paid\n');
  });

  it('a line that tells names apart goes, a first paragraph that begins alike stays', () => {
    const hatnote = `<p><i>This article is about the harbour. For the film, see <a href="/f">The frozen harbour (film)</a>.</i></p>`;
    expect(markdownOf(`${hatnote}${prose(4)}`)).not.toContain('film');
    const first =
      '<p>For other boats, see to it that the lamp burns all night; nobody will come and do it for you.</p>';
    expect(markdownOf(`${first}${prose(4)}`)).toContain('For other boats');
  });

  it('a letter that is left over beside a picture goes; an initial and a letter between paragraphs stay', () => {
    const picture = '<figure><img src="/a.jpg" alt="The pier" width="600" height="400"></figure>';
    const text = (body: string) => article(`${prose(2)}${body}${prose(2, 3)}`).text;
    expect(text(`${picture}<p>x</p>`)).not.toMatch(/^x$/m);
    expect(text(`<p><img src="/a.jpg" alt="The pier" width="600" height="400">]</p>`)).not.toContain(']');
    expect(text(`${picture}<p>T</p><p>he rest of a long word that begins with a large letter of its own.</p>`)).toMatch(
      /^T$/m,
    );
    expect(text('<p>Q</p>')).toMatch(/^Q$/m);
  });

  it('a box of facts before the text stands behind it', () => {
    const facts =
      '<table><tr><th colspan="2">The harbour</th></tr><tr><th>Built</th><td>1871</td></tr><tr><th>Depth</th><td>4.2 m</td></tr><tr><th>Berths</th><td>36</td></tr></table>';
    const text = article(`${facts}${prose(5)}`).text;
    expect(text.indexOf('4.2 m')).toBeGreaterThan(text.indexOf('Sentence 5'));
    // Where there is hardly any text, it is what was looked for.
    const short = article(`${facts}${prose(2)}`).text;
    expect(short.indexOf('4.2 m')).toBeLessThan(short.indexOf('Sentence 1'));
  });

  it('boxes between the paragraphs that announce other pages go; a list of things with their links stays', () => {
    const box = (n: number, words: string) =>
      `<div class="box"><h4><a href="/${n}">Another page, number ${n}</a></h4><p>${words}</p></div>`;
    const teased = `${prose(3)}${box(1, sentence(21))}${prose(3, 4)}${box(2, sentence(22))}${prose(3, 7)}`;
    expect(markdownOf(teased)).not.toMatch(/Another page|Sentence 2[12]/);
    const things = [1, 2, 3, 4].map((n) => box(n, `${sentence(30 + n)} ${sentence(40 + n)}`)).join(prose(1));
    expect(markdownOf(`${prose(1)}${things}`)).toMatch(/Another page, number 3[\s\S]*Sentence 43/);
  });

  it.each([
    '<strong>Check out more:</strong> <a href="/3">The winter the ferry stood still</a>',
    'Next on our list: <a href="/4">Midwinter reading</a>',
    'Was this article helpful? <button>Yes</button> <button>No</button>',
  ])('a line that leads on or asks goes from its end: %s', (line) => {
    expect(article(`${prose(4)}<p>${line}</p>`).text).toMatch(/Sentence 4 [^\n]*$/);
  });

  it('a rule between headline and text parts nothing', () => {
    expect(markdownOf(`<hr>${prose(2)}<hr>${prose(1)}`).match(/^\*\*\*$/gm)).toHaveLength(1);
  });

  it('a mail address can be written to, and nobody says what', () => {
    const text = markdownOf(
      `${prose(2)}<p>Write to <a href="mailto:keeper@x.example?bcc=b@y.example&body=Hello">the keeper</a> or to <a href="mailto:nobody">nobody</a>.</p>`,
    );
    expect(text).toContain('[the keeper](mailto:keeper@x.example) or to nobody.');
  });
});

describe('what belongs to a text though its name or its links speak against it', () => {
  it.each(['sidebar note-box', 'overlay', 'widget'])('a box of sentences between paragraphs, called %s', (name) => {
    const box = (words: string) => `${prose(2)}<div class="${name}"><p>${words}</p></div>${prose(3, 3)}`;
    expect(article(box(sentence(9))).text).toContain('Sentence 9');
    expect(article(box(`${sentence(9)} <a href="/more">More of the same</a>`)).text).not.toContain('Sentence 9');
  });

  it('a box that is called a newsletter stays out, whatever else it is called', () => {
    const box = `<div class="sidebar newsletter"><p>${sentence(9)}</p></div>`;
    expect(article(`${prose(2)}${box}${prose(3, 3)}`).text).not.toContain('Sentence 9');
  });

  it('a heading that begins as a label does', () => {
    expect(markdownOf(`${prose(1)}<h2>Related work on ice</h2>${prose(2, 2)}`)).toContain('## Related work on ice');
    expect(markdownOf(`${prose(4)}<p>Related articles: The rock that moved</p>`)).not.toContain('Related');
  });

  const links = ['Holm, I. (2019): Ice', 'Reed, B. (2021): Nets', 'Orme, C. (2022): Coal']
    .map((each, n) => `<li><a href="https://a.example/${n}">${each}</a></li>`)
    .join('');
  it.each(['References', 'Literatur', 'Références', '参考文献'])('what it has drawn on, under “%s”', (heading) => {
    expect(markdownOf(`${prose(4)}<h2>${heading}</h2><ol>${links}</ol>`)).toContain('3. [Orme, C. (2022): Coal]');
  });

  it('no such list under another heading', () => {
    expect(markdownOf(`${prose(4)}<h2>Our favourites</h2><ol>${links}</ol>`)).not.toContain('Orme');
  });
});

describe('what a page says besides', () => {
  it('numbers of lines beside code are no code; a block of numbers is', () => {
    const code = (gutter: string) =>
      `${prose(2)}<table><tr><td><pre>${gutter}</pre></td><td><pre>let a = 1;\nlet b = 2;\nlet c = 3;</pre></td></tr></table>${prose(2, 3)}`;
    expect(markdownOf(code('1\n2\n3'))).not.toMatch(/^2$/m);
    expect(markdownOf(code('1\n2\n4'))).toMatch(/^4$/m);
  });

  it.each([
    'You are using an outdated browser. Please upgrade your browser to improve your experience and security.',
    'Please enable JavaScript to see all of this page.',
  ])('of the browser goes: %s', (words) => {
    expect(article(`<div><p>${words}</p></div>${prose(4)}`).text).not.toContain(words);
  });

  it('the ways to the page before and the next one go, at both ends', () => {
    const ways =
      '<table><tr><td><a href="/p">« Previous: The coal</a></td><td><a href="/t">Contents</a></td><td><a href="/n">Next: The lamp »</a></td></tr></table>';
    expect(article(`${ways}${prose(5)}${ways}`).text).not.toMatch(/coal|Contents|lamp/);
  });

  it('an address that is read at the beginning stays', () => {
    const first = '<p><a href="https://a.example/">https://a.example/</a></p>';
    expect(article(`${first}${prose(4)}`).text).toContain('https://a.example/');
  });
});

describe('when a text was published', () => {
  const published = (language: string, meta: string, body = '') =>
    extractArticle(
      `<html lang="${language}"><head><title>T</title><meta name="publishdate" content="${meta}"></head><body><article><h1>T</h1>${body}${prose(5)}</article></body></html>`,
      'https://x.example/a',
    ).publishedAt;

  it.each([
    ['en-GB', '03/12/2025', '2025-12-03'],
    ['en-US', '03/12/2025', '2025-03-12'],
    ['en-US', '23/12/2025', '2025-12-23'],
    ['de', '03.12.2025', '2025-12-03'],
  ])('in %s, %s is %s', (language, meta, day) => {
    expect(published(language, meta)).toBe(day);
  });

  it('goes by what the page shows where it shows one of both', () => {
    expect(published('en-US', '03/12/2025', '<p class="date">3 December 2025</p>')).toBe('2025-12-03');
  });
});

describe('who wrote a text', () => {
  it.each([
    'Posted by <a href="/u/9">Ines Tavora</a> at <a href="/a">11:02</a>',
    'Text: Ines Tavora',
    'Author: Ines Tavora',
  ])('is told by %s', (line) => {
    expect(article(`${prose(4)}<div>${line}</div>`).authors).toEqual(['Ines Tavora']);
  });
});

it('an article that a page appends is known by who wrote it, where it has no date', () => {
  const story = (title: string, by: string, from: number) =>
    `<article class="story"><h1>${title}</h1><p class="byline">By ${by}</p>${prose(4, from)}</article>`;
  const { text } = extractArticle(
    `<html lang="en"><head><title>The frozen harbour</title></head><body>${story('The frozen harbour', 'Ines Tavora', 1)}${story('What a reserve is for', 'Jonas Reed', 11)}</body></html>`,
    'https://x.example/a',
  );
  expect(text).toContain('Sentence 4');
  expect(text).not.toMatch(/reserve|Sentence 1[1-4]/);
});

it('a title is what follows the name of its site, where a colon stands between them', () => {
  const { title } = extractArticle(
    `<html lang="en"><head><title>Skerrow Record: The frozen harbour</title><meta property="og:site_name" content="Skerrow Record"></head><body><div>${prose(5)}</div></body></html>`,
    'https://x.example/a',
  );
  expect(title).toBe('The frozen harbour');
});

describe('pictures that are none', () => {
  const pictures = (body: string) =>
    [...JSON.stringify(article(`${prose(2)}${body}${prose(3, 3)}`).tree).matchAll(/"src":"([^"]*)"/g)].map(
      ([, src]) => src,
    );

  it.each([
    [
      'counts readers by nothing but its address',
      '<noscript><img src="https://count.example/p?c1=2&c2=79" alt=""></noscript>',
    ],
    [
      'counts readers, and says what it is',
      '<noscript><img src="https://count.example/meter.gif" alt="counter"></noscript>',
    ],
    [
      'counts readers out of sight',
      '<noscript><a href="https://count.example/"><img src="/pixel/p-d9.png" style="display: none;"></a></noscript>',
    ],
    ['is pressed by script', '<p><img class="favorite" src="/img/heart.svg" onclick="return toggle(this)"></p>'],
    [
      'is the sign of the site, leading home',
      '<p><a href="https://x.example/" title="Home"><img src="img/logo-med.png"></a></p>',
    ],
  ])('one that %s', (_what, body) => {
    expect(pictures(body)).toEqual([]);
  });

  it.each([
    [
      'a picture for who has no script',
      '<div class="lazy"><noscript><img src="/pier.jpg" alt="The pier"></noscript></div>',
    ],
    [
      'the one that a placeholder stands for',
      '<p><img src="data:image/gif;base64,R0" class="lazy"><noscript><img src="/pier"></noscript></p>',
    ],
    [
      'one of a size at an address without a name',
      '<noscript><img src="https://pictures.example/600?w=2" width="600" height="400"></noscript>',
    ],
    ['one that grows when it is pressed', '<p><img src="/pier.jpg" alt="The pier" onclick="enlarge(this)"></p>'],
    [
      'the sign of somebody else',
      '<p><a href="https://yard.example/"><img src="/yard-logo.png" alt="The yard"></a></p>',
    ],
    [
      'a logo that is written about',
      '<p><a href="/history/logo"><img src="/logo-of-1871.png" alt="The first sign"></a></p>',
    ],
  ])('but %s stays', (_what, body) => {
    expect(pictures(body)).toHaveLength(1);
  });
});
