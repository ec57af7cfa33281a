import fc from 'fast-check';
import { extractArticle, treeToHtml, whyLines } from '..';
import { joinPages } from '../page/join';
import { parsePage } from '../page/page-tree';
import { FEATURES } from './features';
import { FOREST, type Forest, likelihood, reasons } from './forest';
import { linesOf } from './page-lines';

const sentence = (n: number) =>
  `Sentence ${n} of the story tells something at some length, with a comma in it, and then it comes to its end.`;
const prose = (count: number, from = 1) =>
  Array.from({ length: count }, (_, n) => `<p>${sentence(from + n)}</p>`).join('');
const read = (body: string, head = '<title>Larch or oak</title>') =>
  extractArticle(
    `<!doctype html><html lang="en"><head>${head}</head><body>${body}</body></html>`,
    'https://x.example/a',
  );
const textOf = (body: string, head?: string) => read(body, head).text;

describe('pictures beside what is not text', () => {
  /** Takes for text what is not all link, and has no other say. */
  const forest: Forest = {
    made: 'by hand',
    features: FEATURES,
    start: 0,
    threshold: 0.5,
    lean: 0,
    trees: [
      {
        feature: [FEATURES.indexOf('linkShare'), -1, -1],
        upTo: [0.9, 0, 0],
        right: [2, 0, 0],
        value: [0, 4, -4],
      },
    ],
  };
  const pictures = (box: string) => {
    const page = `<html lang="en"><head><title>T</title></head><body><article>${prose(4)}${box}${prose(4, 5)}</article></body></html>`;
    const { tree } = extractArticle(page, 'https://x.example/a', 'words-and-pictures', forest);
    return [...treeToHtml(tree).matchAll(/src="[^"]*\/([^"/]*)"/g)].map(([, file]) => file);
  };

  it('go with the headline of another page that they are to draw to', () => {
    expect(
      pictures('<div><a href="/other"><img src="/teaser.jpg"></a><p><a href="/other">Another headline</a></p></div>'),
    ).toEqual([]);
  });

  it('stay beside a link that is no text, and where they lead to a larger copy of themselves', () => {
    expect(
      pictures(
        '<div><img src="/quay.jpg"><p><a href="/ada">Ada Quill</a></p></div><div><a href="/large.jpg"><img src="/small.jpg"></a><p><a href="/ada">Ada Quill</a></p></div>',
      ),
    ).toEqual(['quay.jpg', 'small.jpg']);
  });

  it('are none where an advert is asked for', () => {
    expect(pictures('<p><img src="https://ads.example/ad/news;pos=1;sz=250x250;ord=1?"></p>')).toEqual([]);
  });
});

describe('a forest', () => {
  const forest: Forest = {
    made: 'by hand',
    features: ['length', 'links'],
    start: 0.5,
    threshold: 0.5,
    lean: 0,
    trees: [
      // length up to 3? then links up to .5? 1 : -1; else 2
      { feature: [0, 1, -1, -1, -1], upTo: [3, 0.5, 0, 0, 0], right: [4, 3, 0, 0, 0], value: [0.1, 0.2, 1, -1, 2] },
      { feature: [-1], upTo: [0], right: [0], value: [0.25] },
    ],
  };
  const odds = (share: number) => Math.log(share / (1 - share));

  it.each([
    [[3, 0.5], 1.75],
    [[3, 0.6], -0.25],
    [[3.1, 0], 2.75],
  ])('adds up what its trees say of %p', (features, wanted) => {
    expect(odds(likelihood(forest, features))).toBeCloseTo(wanted, 10);
  });

  it('says what spoke for a line and against it', () => {
    expect(reasons(forest, [3, 0.6])).toEqual([
      { feature: 'links', weight: -1.2 },
      { feature: 'length', weight: expect.closeTo(0.1, 10) as number },
    ]);
  });

  it('the one that is used: its features are those that are read, and its reasons add up to what it says', () => {
    expect(FOREST.features).toEqual(FEATURES);
    expect(JSON.stringify(FOREST).length).toBeLessThan(100_000);
    const roots = FOREST.trees.reduce((sum, { value }) => sum + (value[0] ?? 0), FOREST.start);
    fc.assert(
      fc.property(
        fc.array(fc.float({ min: -1, max: 300, noNaN: true }), {
          minLength: FEATURES.length,
          maxLength: FEATURES.length,
        }),
        (features) => {
          const sum = reasons(FOREST, features).reduce((all, { weight }) => all + weight, roots);
          expect(sum).toBeCloseTo(odds(likelihood(FOREST, features)), 6);
        },
      ),
      { numRuns: 200 },
    );
  });
});

it('the lines of a page are its runs of phrasing, each in its block, with what of them is linked', () => {
  const body = parsePage(
    '<div>A <b>bold</b> start<p>One<br>and <a href="/x">two</a></p><a href="/y"><h2>All of it</h2></a><a id="z">no link</a><script>x</script><math><mi>y</mi></math></div>',
  ).childNodes[0];
  const { lines, ranges } = linesOf((body as { childNodes: Parameters<typeof linesOf>[0][] }).childNodes[1]!);
  expect(lines.map(({ text, block, links }) => [block.tagName, text, links])).toEqual([
    ['div', 'A bold start', 0],
    ['p', 'One and two', 3],
    ['h2', 'All of it', 9],
    ['div', 'no linky', 0],
  ]);
  const [first] = lines;
  expect(first && ranges.get(first.block)).toEqual({ from: 0, to: 4 });
});

/** Pages by what went wrong on others of their kind; every word "elsewhere" must stay out, every "Sentence" and "kept" come through. */
const CLASSES: Readonly<Record<string, [body: string, kept: number, head?: string]>> = {
  'a section whose id is the words of its heading': [
    `<article>${prose(3)}<section id="errors-related-to-imports"><h2>Errors related to imports</h2>${prose(3, 4)}</section></article>`,
    0,
  ],
  'comments in code': [
    `<article>${prose(3)}<pre><code>run() <span class="comment"># kept</span></code></pre>${prose(3, 4)}</article>`,
    1,
  ],
  'an anchor that closes itself as XML does': [`<div>${prose(2)}<a id="x"/>${prose(4, 3)}</div>`, 0],
  'a dialogue to sign in, in a form': [
    `<main><form><p>Sign in to read elsewhere, comment elsewhere, and find all that you have kept elsewhere.</p><input type="password"></form>${prose(6)}</main>`,
    0,
  ],
  'a column at the right, in another spelling': [
    `<div id="left_col">${prose(6)}</div><div id="right_col">${'<p>This guide, to be had elsewhere, is designed to help you understand the best practices, and more.</p>'.repeat(4)}</div>`,
    0,
  ],
  'a side rail inside the body of the article': [
    `<div class="article_body"><div class="module article-side-rail">${'<p>Another story, to be read elsewhere, tells at some length what happened to somebody, and why.</p>'.repeat(5)}</div>${prose(8)}</div>`,
    0,
  ],
  'a footer as long as a short story': [
    `<div class="page"><article><header><h1>Larch or oak</h1></header>${prose(6)}</article><footer id="site-footer"><div class="about">Elsewhere is the largest site of its kind, with more than twenty million readers, dedicated to what happens elsewhere. It is read everywhere elsewhere, by everybody, every day, and has won a prize for it.</div></footer></div>`,
    0,
  ],
  'the next article behind this one': [
    ['Larch or oak', 'Of other boats elsewhere']
      .map(
        (headline, at) =>
          `<div class="col"><div class="post"><h1>${headline}</h1><div class="post_date">3${at} August, 2015 09:00</div><div class="post_content">${at === 0 ? prose(6) : '<p>Today I tried elsewhere what I had seen elsewhere, and it was as good as they had said it would be there.</p>'.repeat(6)}</div></div></div>`,
      )
      .join(''),
    0,
  ],
  'ingredients that lead to their own pages': [
    `<article>${prose(3)}<div><h2>What you need</h2><ul><li>½ cup <a href="/s">potato starch kept</a></li><li>200 g <a href="/f">plain flour kept</a></li><li>2 large <a href="/e">brown eggs kept</a></li><li>1 pinch of <a href="/z">sea salt kept</a></li></ul></div>${prose(3, 4)}</article>`,
    4,
  ],
  'ingredients that the page states in its data, in a table beside the text': [
    `<main><div class="box"><table class="list"><tr><td>200 g</td><td>kept flour</td></tr><tr><td>2</td><td>kept eggs</td></tr></table></div><div class="text">${prose(6)}</div></main>`,
    2,
    `<title>Larch or oak</title><script type="application/ld+json">${JSON.stringify({ '@type': 'Recipe', name: 'Larch or oak', recipeIngredient: ['200 g kept flour', '2 kept eggs'] })}</script>`,
  ],
  'reviews that outweigh what is reviewed': [
    `<main><div class="node node--type-recipe node--promoted">${prose(6)}</div><div class="block-recipe-reviews">${'<div class="review"><p>Love these, we had them elsewhere, and the pepper comes through nicely, which pleased us all.</p></div>'.repeat(20)}</div></main>`,
    0,
  ],
};

describe.each(Object.entries(CLASSES))('%s', (_name, [body, kept, head]) => {
  it('comes out whole and alone', () => {
    const text = textOf(body, head);
    expect(text.match(/Sentence \d/g)).toEqual(body.match(/Sentence \d/g));
    expect(text).not.toMatch(/elsewhere/i);
    expect(text.match(/kept/g) ?? []).toHaveLength(kept);
  });
});

it('headings lose the signs that lead to themselves, and rules that part nothing go', () => {
  const html = treeToHtml(
    read(
      `<article><hr>${prose(2)}<h2>One<a href="#one">¶</a></h2>${prose(1, 3)}<hr><hr><h2>Two #</h2>${prose(1, 4)}<h2>In C#</h2>${prose(2, 5)}<hr></article>`,
    ).tree,
  );
  expect(html.match(/<h2>[^<]*<\/h2>|<hr>/g)).toEqual(['<h2>One</h2>', '<hr>', '<h2>Two</h2>', '<h2>In C#</h2>']);
});

describe('blocks that are not surely text', () => {
  /** Sure of what has no link in it, undecided about what is a list's entry, against what is all link. */
  const forest: Forest = {
    made: 'by hand',
    features: FEATURES,
    start: 3,
    threshold: 0.5,
    lean: 0,
    trees: [
      {
        feature: [FEATURES.indexOf('isEntry'), -1, -1],
        upTo: [0.5, 0, 0],
        right: [2, 0, 0],
        value: [0, 0, -2.8],
      },
      {
        feature: [FEATURES.indexOf('isParagraph'), -1, -1],
        upTo: [0.5, 0, 0],
        right: [2, 0, 0],
        value: [0, 0, 1],
      },
    ],
  };
  const of = (body: string) =>
    extractArticle(
      `<!doctype html><html lang="en"><head><title>Larch</title></head><body>${body}</body></html>`,
      'https://x.example/a',
      'words-and-pictures',
      forest,
    );

  it('are told by their place, with what speaks for and against them', () => {
    const { tree, doubts } = of(`<article>${prose(3)}<ul><li>${sentence(7)}</li></ul>${prose(3, 8)}</article>`);
    expect(doubts).toEqual([{ at: 3, speaksFor: [], speaksAgainst: ['tag'] }]);
    expect(tree.children[3]).toMatchObject({ tagName: 'ul' });
  });

  it('keep their place where pages are joined, without what the second repeats', () => {
    const doubtful = (n: number) => `<ul><li>${sentence(n)}</li></ul>`;
    const joined = joinPages(of(`<article>${prose(3)}${doubtful(9)}</article>`), [
      of(`<article><p>${sentence(1)}</p>${prose(2, 20)}${doubtful(30)}</article>`),
    ]);
    expect(joined.doubts.map(({ at }) => at)).toEqual([3, 6]);
    for (const { at } of joined.doubts) expect(joined.tree.children[at]).toMatchObject({ tagName: 'ul' });
  });

  it('are none where all is surely text, where nothing was judged, and where a part was chosen by hand', () => {
    expect(of(`<article>${prose(6)}</article>`).doubts).toEqual([]);
    const listed = `<article>${prose(3)}<ul><li>${sentence(7)}</li></ul></article>`;
    expect(extractArticle(listed, 'https://x.example/a', 'words-and-pictures', null).doubts).toEqual([]);
    expect(extractArticle(listed, 'https://x.example/a', 'selected-part', forest).doubts).toEqual([]);
  });
});

it('every line of a page says why it came through or did not', () => {
  const lines = whyLines(
    `<html><body><article><h1>Larch or oak</h1>${prose(4)}<div class="share"><a href="/s">Share this</a></div></article></body></html>`,
    'https://x.example/a',
  );
  const share = lines.find(({ text }) => text === 'Share this');
  expect(lines.filter(({ text, isText }) => text.startsWith('Sentence') && isText)).toHaveLength(4);
  expect(share).toMatchObject({ isText: false });
  expect(share?.reasons.some(({ feature, weight }) => feature === 'cutAround' && weight < 0)).toBe(true);
});

it('what decided of a line is told: the page, the list around it, or that it was asked of readers', () => {
  const lines = whyLines(
    `<html><body><article><h1>Larch or oak</h1>${prose(6)}
      <div><h3>Get our letter</h3><form><input type="email"><button>Sign up</button></form></div></article></body></html>`,
    'https://x.example/a',
  );
  const by = (wanted: string) => lines.find(({ text }) => text.startsWith(wanted))?.by;
  expect(by('Sentence')).toBe('forest');
  expect(lines.filter((line) => line.by === 'asked')).toEqual([
    { text: 'Get our letter', likelihood: 0, isText: false, by: 'asked', reasons: [] },
  ]);
});
