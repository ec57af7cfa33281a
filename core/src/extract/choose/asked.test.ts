import { extractArticle } from '..';

const sentence = (n: number) =>
  `Sentence ${n} of the story tells something at some length, with a comma in it, and then it comes to its end.`;
const prose = (count: number) => Array.from({ length: count }, (_, n) => `<p>${sentence(n + 1)}</p>`).join('');
const textOf = (body: string, around = '') =>
  extractArticle(
    `<html lang="en"><head><title>The frozen harbour</title></head><body><div class="a"><div class="b"><h1>The frozen harbour</h1>${body}</div>${around}</div></body></html>`,
    'https://x.example/a',
  ).text;

// No class here says what a box is for: it is known by what stands in it.
describe('what a page asks of its readers', () => {
  const consent =
    '<div class="c"><p>We and our 214 partners store information on your device.</p><button>Accept all</button><button>Manage choices</button></div>';
  const newsletter =
    '<div class="d"><div>Five stories at breakfast</div><div>Each weekday, and you may leave whenever you like.</div><input type="email"><button>Go</button></div>';
  const wrapped =
    '<div class="d"><h3>Five stories at breakfast</h3><div><form><input type="text" placeholder="Your e-mail"><button>Go</button></form></div><p>No spam.</p></div>';
  const opinions =
    '<section><h3>What did you think of it?</h3><form><textarea></textarea></form><div><b>Oda</b><p>I made it on Sunday with rye instead of barley, and it took a good twenty minutes longer than that.</p></div></section>';

  it.each([
    ['consent', consent, 'partners'],
    ['an address', newsletter, 'breakfast'],
    ['an address, in a form with words around it', wrapped, 'breakfast'],
    ['an opinion, and those that were given', opinions, 'rye instead'],
  ])('is no part of its text: %s', (_name, box, words) => {
    const text = textOf(`${prose(4)}${box}<p>${sentence(9)}</p>`);
    expect(text).not.toContain(words);
    expect(text).toContain('Sentence 4');
    expect(text).toContain('Sentence 9');
  });

  it('a page that is little else keeps its words', () => {
    const form = `<div class="d"><h2>Write to us</h2><p>${sentence(1)} ${sentence(2)}</p><form><textarea></textarea></form></div>`;
    expect(textOf(form)).toContain('Sentence 1');
  });

  it('a text about consent keeps what is said of it, and a text in the box of a field stays', () => {
    const about =
      '<p>We and our partners ask for your consent to store cookies on your device, says the notice that everybody accepts: accept all, or manage choices.</p>';
    expect(textOf(`${prose(3)}${about}`)).toContain('says the notice');
    expect(textOf(`<div>${prose(5)}<form><textarea></textarea></form></div>`)).toContain('Sentence 5');
  });
});

describe('what readers answered', () => {
  const answer = (n: number) =>
    `<div class="e"><div>Reader ${n}</div><div>My grandfather lit the lamps in that street, and he would have had words for engineer ${n}.</div><button>Reply</button></div>`;

  it('goes with the line that counts it, where each can be replied to', () => {
    const text = textOf(`${prose(6)}<div class="f"><div>38 responses</div>${answer(1)}${answer(2)}</div>`);
    expect(text).toMatch(/Sentence 6 [^\n]*$/);
  });

  it.each(['Helpful (3)', 'Antworten', 'Répondre à Odile', '返信'])('goes where each has a button “%s”', (button) => {
    const answers = [1, 2].map((n) => answer(n).replace('Reply', button)).join('');
    expect(textOf(`${prose(6)}<div>${answers}</div>`)).not.toContain('My grandfather');
  });

  it('goes where answers stand in answers', () => {
    const nested = `<div class="e"><div>Reader 3</div><p>${answer(4)}</p><a href="#r">Reply to Reader 3</a>${answer(5)}</div>`;
    expect(textOf(`${prose(6)}<div>${nested}${answer(6)}</div>`)).not.toContain('My grandfather');
  });

  it('stays where it is what the page is for', () => {
    expect(textOf(`<p>What of the lamps?</p>${answer(1)}${answer(2)}${answer(3)}`)).toContain('engineer 2');
  });
});

describe('lists and tables', () => {
  it('come through whole where most of them does', () => {
    const text = textOf(
      `<p>${sentence(1)}</p></div><section><div><h3>What does it cost?</h3><div><p>${sentence(2)}</p><table><tr><th>House</th><th>Cost</th></tr><tr><td>Terrace</td><td>9,200</td></tr><tr><td>Detached</td><td>13,800</td></tr></table></div></div></section><div>`,
      '<section><h2>Get a free quote</h2><p>Leave your details and one of our fitters will call you back.</p><form><input type="email"></form></section><footer><div>The county’s office for houses is paid by nobody.</div></footer>',
    );
    expect(text).toContain('Terrace');
    expect(text).toContain('Detached');
  });

  it('of links to the pages before and after go', () => {
    const steps =
      '<b>Sanna Brook</b><br><i>Tue Mar 5 10:12:44 2019</i><ul><li>Previous message: <a href="1.html">[dev] build broken on arm</a></li><li>Next message: <a href="3.html">[dev] Proposal: drop the old format</a></li><li><b>Messages sorted by:</b> <a href="d.html">[ date ]</a></li></ul><hr>';
    const text = textOf(`${steps}<pre>Hello all,\n\n${[1, 2, 3].map(sentence).join('\n')}</pre>`);
    expect(text).toContain('Sentence 3');
    expect(text).not.toContain('build broken');
  });

  it('of cards that each lead to another page go with what announces them', () => {
    const card = (n: number) =>
      `<a href="/${n}"><img src="${n}.jpg" width="300" alt=""><h3>Why doors open outwards, part ${n}</h3><p>It took a fire to find out, and ${n} men.</p></a>`;
    const text = textOf(`${prose(4)}<section><h2>More little whys</h2>${card(1)}${card(2)}</section>`);
    expect(text).toMatch(/Sentence 4 [^\n]*$/);
    // What leads to a place on the same page is a part of it.
    const inside = textOf(`${prose(4)}<section>${card(1)}${card(2)}</section>`.replaceAll('href="/', 'href="#'));
    expect(inside).toContain('part 2');
  });

  it('of what is linked to in a text stay under their heading', () => {
    const links =
      '<h2>Links</h2><ul><li><a href="https://a.example">A map of the wells of Tarn</a></li><li><a href="https://b.example">A short history of the windlass</a></li></ul>';
    expect(textOf(`${prose(4)}${links}`)).toContain('windlass');
  });
});

it('a button between paragraphs ends no text', () => {
  const text = textOf(
    `${prose(5)}<p class="x"><a href="/share">Share this letter</a></p><p>In his he wrote “good blackberries”.</p>`,
  );
  expect(text).toContain('blackberries');
  expect(text).not.toContain('Share this');
});

it('an article that is appended goes where a line says who wrote it', () => {
  const next = (n: number) => `<p>${sentence(n)}</p>`.repeat(2);
  const text = extractArticle(
    `<html lang="en"><head><title>Bees in the clock</title></head><body><div><div class="t"><h1>Bees in the clock</h1><p>By Rory Quint</p>${prose(3)}</div><div class="t"><h1>Council to sell the bath</h1><p>By Tansy Oll</p>${next(7)}</div></div></body></html>`,
    'https://x.example/a',
  ).text;
  expect(text).toContain('Sentence 3');
  expect(text).not.toContain('Sentence 7');
});
