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

describe('who wrote a text', () => {
  it.each([
    'Posted by <a href="/u/9">Ines Tavora</a> at <a href="/a">11:02</a>',
    'Text: Ines Tavora',
    'Author: Ines Tavora',
  ])('is told by %s', (line) => {
    expect(article(`${prose(4)}<div>${line}</div>`).authors).toEqual(['Ines Tavora']);
  });
});
