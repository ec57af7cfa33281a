import { extractArticle, whyLines } from '..';

const sentence = (n: number) =>
  `Sentence ${n} of the story tells something at some length, with a comma in it, and then it comes to its end.`;
const prose = (count: number) => Array.from({ length: count }, (_, n) => `<p>${sentence(n + 1)}</p>`).join('');
const pageOf = (body: string, around = '') =>
  `<html lang="en"><head><title>The frozen harbour</title></head><body><div class="a"><div class="b"><h1>The frozen harbour</h1>${body}</div>${around}</div></body></html>`;
const textOf = (body: string, around = '') => extractArticle(pageOf(body, around), 'https://x.example/a').text;

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

  it.each([
    ['what is to be tried out', `<div><h3>Try it</h3><textarea>let a = 1</textarea><p>${sentence(8)}</p></div>`],
    [
      'how fields are made',
      [1, 2, 3, 4, 5, 6]
        .map((n) => `<div><h4>Field ${n}</h4><input type="email"><p>${sentence(n + 10)}</p></div>`)
        .join('') + `<p>${sentence(8)}</p>`,
    ],
    ['how one is written', `<div><p>${sentence(8)}</p><input type="email"><pre>&lt;input type="email"&gt;</pre></div>`],
  ])('a page that shows %s keeps its words', (_name, box) => {
    const text = textOf(`${prose(6)}${box}`);
    expect(text).toContain('Sentence 8');
    if (box.includes('Field 3')) expect(text).toContain('Sentence 13');
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
    const parts = [
      `<p>${sentence(1)}</p></div><section><div><h3>What does it cost?</h3><div><p>${sentence(2)}</p><table><tr><th>House</th><th>Cost</th></tr><tr><td>Terrace</td><td>9,200</td></tr><tr><td>Detached</td><td>13,800</td></tr></table></div></div></section><div>`,
      '<section><h2>Get a free quote</h2><p>Leave your details and one of our fitters will call you back.</p><form><input type="email"></form></section><footer><div>The county’s office for houses is paid by nobody.</div></footer>',
    ] as const;
    const text = textOf(...parts);
    expect(text).toContain('Terrace');
    expect(text).toContain('Detached');
    // And it is told that this is why.
    const whole = whyLines(pageOf(...parts), 'https://x.example/a').filter(({ by }) => by === 'whole');
    expect(whole).not.toEqual([]);
    expect(whole.every((line) => line.isText && text.includes(line.text))).toBe(true);
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

it.each([
  ['<h2>Eleven late days, four engines and one goose</h2>', true],
  ['<h2>Our Best Stories Of The Week In Pictures</h2>', false],
  ['<h2><a href="/g">Eleven late days, four engines and one goose</a></h2>', false],
])('what stands right behind a headline is read where it is a sentence: %s', (line, isRead) => {
  const text = extractArticle(
    `<html lang="en"><head><title>Ferry inquiry opens | The Shore</title></head><body><div><div><a href="/">The Shore</a></div><div><a href="/s">Subscribe for 1 a week</a></div></div><div><div><span>Exclusive</span><h1>Ferry inquiry opens</h1>${line}<div>By Aoife Rell and Tor Madsen</div></div><div>${prose(9)}</div><div><div>2,311 Comments</div><a href="/h">Opinion: Leave the ferry alone</a></div></div></body></html>`,
    'https://x.example/a',
  ).text;
  expect(/Eleven late|Our Best/.test(text)).toBe(isRead);
});

it('what is folded in a text is read with it', () => {
  const text = extractArticle(
    `<html lang="en"><head><title>How to cross to Skarn without losing your hat</title></head><body><article class="longform"><h1>How to cross to Skarn without losing your hat</h1><div class="m">Aud Solberg — 4 min read — Jan 9, 2022</div><p>By noon the queue reached the chandlery, and a man was selling tea from the back of a van. Three of the four engines were built in the same yard, and all of them leak in the same place.</p><h2>1. Go by the tide, not by the table</h2><h2>2. Stand on the left</h2><p>Nobody at the office would say who had signed the order, or when. The council will meet again on Thursday; the outcome, most people think, is known. What the report leaves out is the winter, when the road is closed and the boat is all there is.</p><h2>3. Bring something for the harbour master</h2><p>Nobody at the office would say who had signed the order, or when. She had brought a map, a flask and a list of questions, of which he answered two. It is not clear what happens to the island’s post if the licence is lost.</p><div class="map-embed"><p>Tap to load the map</p></div><h2>Where to stay</h2><p>There are two houses that take guests; both of them are the harbour master’s sister’s.</p><div class="aff"><a href="/go/1">Check prices for the Upper House</a></div><h3>Frequently asked</h3><details><summary>Is there a bank?</summary><p>No. There is a tin.</p></details></article><section class="guides"><h2>Plan your trip</h2><div><a href="/2">Packing list for wet weather</a></div><div><a href="/3">Best months for fog</a></div></section><footer>Wayfarer Notes may earn a commission from links.</footer></body></html>`,
    'https://x.example/a',
  ).text;
  expect(text).toMatch(/Frequently asked\s+Is there a bank\?\s+No. There is a tin\./);
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
