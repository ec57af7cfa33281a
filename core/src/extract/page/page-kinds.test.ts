import fc from 'fast-check';
import { plainText } from '../../text';
import { extractArticle, treeToHtml } from '..';
import { parsePage, textContent } from './page-tree';

const sentence = (n: number) =>
  `Sentence ${n} of the story tells something at some length, with a comma in it, and then it comes to its end.`;
const prose = (count: number, from = 1) =>
  Array.from({ length: count }, (_, n) => `<p>${sentence(from + n)}</p>`).join('');
const teasers = (count: number) =>
  Array.from(
    { length: count },
    (_, n) =>
      `<div class="item"><a href="/${n}">Another headline, number ${n}, of some length</a><p>A line about it.</p></div>`,
  ).join('');
const menu = `<ul>${Array.from({ length: 12 }, (_, n) => `<li><a href="/s${n}">Section ${n}</a></li>`).join('')}</ul>`;

/** Pages of many makes, each with a story of eight sentences; what is said elsewhere says "elsewhere". */
const KINDS: Readonly<Record<string, string>> = {
  'no semantics, columns of divs': `<div id="c1">${menu}</div><div id="c2"><div>${prose(8)}</div></div><div id="c3">${teasers(9)}</div>`,
  'text with line breaks in one div': `<div class="post_content permalink"><div>${Array.from({ length: 8 }, (_, n) => sentence(n + 1)).join('<br><br>')}</div></div>${menu}`,
  'a ticker longer than the story': `<div class="article-body">${prose(8)}</div><aside class="sidebar"><ul>${'<li>12:41 Something happened elsewhere, and it was reported at once, with a comma.</li>'.repeat(60)}</ul></aside>`,
  'comments longer than the story': `<article>${prose(8)}</article><div id="article_footer_comments">${'<p>I was elsewhere when it happened, and yet I know better, as I always do.</p>'.repeat(40)}</div>`,
  'comments in another language': `<div class="texto">${prose(8)}</div><div class="comentarios">${'<p>Yo estaba elsewhere, y sin embargo lo sé mejor, como siempre, amigos.</p>'.repeat(40)}</div>`,
  'the text inside noscript': `<div id="app"></div><noscript><div>${prose(8)}</div></noscript>`,
  'class names that mislead': `<div class="l-chunk has-rail no-comments"><div class="sponsor-free">${prose(8)}</div></div>`,
  'everything in a form': `<form action="/x">${menu}<div>${prose(8)}</div></form>`,
  'a layout of tables': `<table><tr><td>${menu}</td><td><table><tr><td>${prose(8)}</td></tr></table></td></tr></table>`,
  'malformed markup': `<div class=a><p>${Array.from({ length: 8 }, (_, n) => sentence(n + 1)).join('<p>')}<div></span></b><table><tr><td>`,
  'teasers between and behind': `<div class="story">${prose(4)}<div class="box">${teasers(4)}</div>${prose(4, 5)}<h3>More from this section</h3>${teasers(5)}</div>`,
  'a tiny article in heavy chrome': `<div>${menu}${menu}</div><div class="entry-content">${prose(8)}</div><div class="right-bar">${'<div class="feature"><h4>Go elsewhere</h4><p>All you need to know about it: tickets, what to wear, what to eat and more.</p></div>'.repeat(8)}</div>`,
  'a byline, a date and buttons before it': `<article><p>By Ada Quill</p><p>June 8, 2012 6:14 AM</p><p>Share this</p>${prose(8)}<p>Filed under: elsewhere</p></article>`,
};

describe.each(Object.entries(KINDS))('%s', (_kind, body) => {
  const html = `<!doctype html><html lang="en"><title>T</title><body>${body}<footer>© elsewhere</footer></body></html>`;
  const { text, tree } = extractArticle(html, 'https://x.example/a');

  it('comes out whole and alone', () => {
    expect(text.match(/Sentence \d of the story/g)).toHaveLength(8);
    expect(text).not.toMatch(/elsewhere|Section \d|Another headline|Ada Quill|2012|Share/);
  });

  it('is in the order of the page', () => {
    const numbers = [...text.matchAll(/Sentence (\d)/g)].map(([, number]) => Number(number));
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
  });

  it('changes no more when it is extracted from itself', () => {
    const again = extractArticle(
      `<html lang="en"><body><article>${treeToHtml(tree)}</article></body></html>`,
      'https://x.example/a',
    );
    expect(again.text).toBe(text);
  });
});

describe('a page that script builds', () => {
  const page = (body: string) =>
    `<html><head><script type="application/ld+json">${JSON.stringify({
      '@type': 'NewsArticle',
      headline: 'The ferry is late',
      articleBody: body,
    }).replaceAll(
      '</',
      '<\\/',
    )}</script></head><body><div id="app">Loading…</div><script>render()</script></body></html>`;
  const sentences = Array.from({ length: 8 }, (_, n) => sentence(n + 1));

  it.each([
    ['lines', sentences.join('\n\n')],
    ['markup', sentences.map((each) => `<p>${each}</p><script>alert(1)</script>`).join('')],
    ['one line', sentences.join(' ')],
  ])('is read from what it states of its text, as %s', (_form, body) => {
    const { text, tree, cameThrough } = extractArticle(page(body), 'https://x.example/');
    expect(text.match(/Sentence \d of the story/g)).toHaveLength(8);
    expect(JSON.stringify(tree)).not.toContain('alert');
    expect(cameThrough.verdict).toBe('whole');
  });

  it('keeps to its markup where that says as much', () => {
    const { text } = extractArticle(
      page('Quite another text. '.repeat(40)).replace('Loading…', prose(8)),
      'https://x.example/',
    );
    expect(text).not.toContain('Quite another text');
  });
});

describe('any page at all', () => {
  const name = fc.constantFrom(
    'div',
    'p',
    'section',
    'ul',
    'li',
    'table',
    'tr',
    'td',
    'span',
    'a',
    'noscript',
    'form',
    'h2',
    'pre',
  );
  const label = fc.constantFrom('', 'comments', 'sidebar', 'article-body', 'has-rail', 'related', 'x');
  const { node } = fc.letrec((tie) => ({
    node: fc.oneof(
      { maxDepth: 5 },
      fc.constantFrom(
        'word ',
        'A sentence, as it stands in pages everywhere, long enough to be one. ',
        '<br>',
        '<img src=a.png>',
        '</div>',
        '<td>',
        '&amp;',
        '潮が満ちる。',
      ),
      fc
        .tuple(name, label, fc.array(tie('node') as fc.Arbitrary<string>, { maxLength: 6 }))
        .map(([tag, kind, children]) => `<${tag} class="${kind}">${children.join('')}</${tag}>`),
    ),
  }));

  it('changes no more when what came out of it is extracted again', () => {
    // A title of its own: else a paragraph that is said twice can be taken for the headline.
    const head = '<html lang="en"><head><title>Of itself</title></head>';
    fc.assert(
      fc.property(fc.array(node, { maxLength: 8 }), (parts) => {
        const once = extractArticle(`${head}<body>${parts.join('')}`, 'https://x.example/');
        const again = extractArticle(
          `${head}<body><article>${treeToHtml(once.tree)}</article></body></html>`,
          'https://x.example/',
        );
        expect(treeToHtml(again.tree)).toBe(treeToHtml(once.tree));
      }),
      {
        numRuns: 300,
        // Found by it once: a row without words made a table of what has one column; breaks stayed in an entry inside an entry.
        examples: [
          [['<table><div><td><div><td></div><tr><td><div>word </div></tr></td><td></div>word </table>']],
          [
            [
              '<p>A sentence, as it stands in pages everywhere, long enough to be one. </p>',
              '<li><section><li>word <br><br>A sentence, as it stands in pages everywhere, long enough to be one. </li></section>word </li>',
            ],
          ],
        ],
      },
    );
  });

  it('comes to words of the page in the order of the page, or to none; and never to an exception', () => {
    fc.assert(
      fc.property(fc.array(node, { maxLength: 8 }), (parts) => {
        const html = `<body>${parts.join('')}`;
        const { tree } = extractArticle(html, 'https://x.example/');
        const page = textContent(parsePage(html.replace(/<(\/?)noscript/g, '<$1div'))).replace(/\s+/g, '');
        let at = 0;
        for (const char of plainText(tree).text.replace(/\s+/g, '')) {
          at = page.indexOf(char, at) + 1;
          expect(at).toBeGreaterThan(0);
        }
      }),
      { numRuns: 300 },
    );
  });
});
