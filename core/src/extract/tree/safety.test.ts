import fc from 'fast-check';
import type { Root } from 'hast';
import { TREE_SCHEMA } from '../../model';
import { extractArticle, PageTooLarge, treeToHtml } from '..';

const ALLOWED = new Set(TREE_SCHEMA.tagNames);
const PROSE =
  '<p>A paragraph of honest prose stands here, long enough to be taken for the text, with commas, and a full stop.</p>';

function everyElement(tree: Root) {
  const found: { tagName: string; properties: Record<string, unknown> }[] = [];
  const visit = (node: Root['children'][number]) => {
    if (node.type !== 'element') return;
    found.push(node);
    node.children.forEach(visit);
  };
  tree.children.forEach(visit);
  return found;
}

function expectHarmless(html: string) {
  const { tree } = extractArticle(html, 'https://example.org/');
  for (const { tagName, properties } of everyElement(tree)) {
    expect(ALLOWED).toContain(tagName);
    for (const [name, value] of Object.entries(properties)) {
      expect(name).not.toMatch(/^on|style|srcDoc/i);
      if (name === 'id') expect(String(value)).toMatch(/^in-\d+$/);
      else if (name === 'href' || name === 'src') expect(String(value)).toMatch(/^(?:https?:\/\/|#in-\d+$)/);
    }
  }
}

/** Vectors of the OWASP XSS Filter Evasion Cheat Sheet and of Cure53's mXSS reports, from memory. */
const VECTORS = [
  '<script>alert(1)</script>',
  '<img src=x onerror=alert(1)>',
  '<img src="javascript:alert(1)">',
  '<a href="javascript:alert(1)">x</a>',
  '<a href="jav&#x09;ascript:alert(1)">x</a>',
  '<a href=" &#14; javascript:alert(1)">x</a>',
  '<a href="JaVaScRiPt:alert(1)">x</a>',
  '<a href="vbscript:msgbox(1)">x</a>',
  '<a href="data:text/html,<script>alert(1)</script>">x</a>',
  '<svg onload=alert(1)><script>alert(1)</script></svg>',
  '<svg><a xlink:href="javascript:alert(1)"><text>x</text></a></svg>',
  '<math href="javascript:alert(1)"><mi>x</mi></math>',
  '<math><mtext><table><mglyph><style><img src=x onerror=alert(1)></style></mglyph></table></mtext></math>',
  '<iframe src="https://evil.example/"></iframe><iframe srcdoc="<script>alert(1)</script>"></iframe>',
  '<object data="x.swf"></object><embed src="x.swf">',
  '<form action="https://evil.example/"><input name=a><button formaction="javascript:alert(1)">go</button></form>',
  '<p style="background:url(javascript:alert(1))" onclick="alert(1)" id="location">styled words, rather many of them, so that they stay</p>',
  '<base href="javascript:alert(1)//"><a href="/x">y</a>',
  '<meta http-equiv="refresh" content="0;url=javascript:alert(1)">',
  '<link rel=stylesheet href="https://evil.example/x.css"><style>@import "https://evil.example/"</style>',
  '<noscript><p title="</noscript><img src=x onerror=alert(1)>"></noscript>',
  '<template><img src=x onerror=alert(1)></template>',
  '<details open ontoggle=alert(1)><summary>s</summary>words</details>',
  '<video poster="javascript:alert(1)"><source onerror=alert(1)></video><audio src=x onerror=alert(1)></audio>',
  '<table background="javascript:alert(1)"><tr><td background="javascript:alert(1)">a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></table>',
  '<<script>alert(1);//<</script>',
  '<IMG """><SCRIPT>alert(1)</SCRIPT>">',
  '<time datetime="x" onmouseover=alert(1)>now</time><code class="language-js evil" onfocus=x>code</code>',
];

describe('what comes out of a page', () => {
  test.each(VECTORS)('cannot run, load or submit: %s', (vector) => {
    expectHarmless(
      `<html><body><article>${PROSE}${vector}${PROSE}<div>${vector}</div>${PROSE}</article></body></html>`,
    );
  });

  it('is harmless whatever the markup', () => {
    const piece = fc.constantFrom(
      '<p>',
      '</p>',
      '<div onclick=x>',
      '</div>',
      '<a href="javascript:x">',
      '</a>',
      '<table>',
      '<tr>',
      '<td>',
      '<svg>',
      '<style>',
      '</style>',
      '<!--',
      '-->',
      '<li>',
      '<ul>',
      'some words, here. ',
      '<img src=//e/x onerror=x>',
      '<math>',
      '<b>',
      '</b>',
      '<noscript>',
      '</noscript>',
      '<pre>',
      '<br>',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 40 }), (pieces) =>
        expectHarmless(`<body>${PROSE}${pieces.join('')}${PROSE}`),
      ),
    );
  });

  it('says so when a page is too large to be taken apart', () => {
    expect(() => extractArticle('<i></i>'.repeat(410_000), 'https://example.org/')).toThrow(PageTooLarge);
  });

  it.each(['div', 'b', 'blockquote', 'ul><li', 'table><tr><td', 'span'])('stands 20,000 nested <%s>', (tag) => {
    const open = `<${tag}>`;
    const { text } = extractArticle(`<body>${PROSE}${open.repeat(20_000)}deep down${PROSE}`, 'https://example.org/');
    expect(text).toContain('honest prose');
  });

  it('writes HTML that a parser reads back as the same text', () => {
    const { tree, text } = extractArticle(
      `<body><article>${PROSE}<p>1 &lt; 2 &amp; 3 &gt; 2</p>${PROSE}</article>`,
      'https://example.org/',
    );
    expect(text).toContain('1 < 2 & 3 > 2');
    expect(extractArticle(`<body><article>${treeToHtml(tree)}</article>`, 'https://example.org/').text).toBe(text);
  });
});
