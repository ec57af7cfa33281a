import { extractArticle } from '..';

const says = (of: string, sentences = 3) =>
  Array.from(
    { length: sentences },
    (_, n) => `<p>${of} tells at some length what happened, ${n + 1} times over, and then comes to an end.</p>`,
  ).join('');
const AT = 'https://forum.example/t/1';
const page = (body: string, head = '') =>
  `<!doctype html><html lang="en"><head><title>Why does it leak? - The Desk</title>${head}</head><body><nav><a href="/">The Desk</a></nav>${body}<footer>All rights reserved by the Desk</footer></body></html>`;
const ofPage = (body: string, head?: string) => {
  const { text, tree, authors } = extractArticle(page(body, head), AT);
  const headings = tree.children.flatMap((node) =>
    node.type === 'element' && node.tagName === 'h2'
      ? node.children.map((child) => (child.type === 'text' ? child.value : ''))
      : [],
  );
  return { text, headings, authors };
};
const data = (value: unknown) => `<script type="application/ld+json">${JSON.stringify(value)}</script>`;

describe('a question with its answers', () => {
  const answer = (who: string, property: string) =>
    `<div itemprop="${property}" itemscope itemtype="https://schema.org/Answer"><div class="votes">7</div>
     <div itemprop="text">${says(who)}<h2>A heading of ${who}</h2></div><a href="/share">Share</a>
     <div itemprop="author" itemscope itemtype="https://schema.org/Person"><a itemprop="name">${who}</a></div>
     <ul class="comments"><li itemprop="comment" itemscope itemtype="https://schema.org/Comment"><span itemprop="text">I do not agree, says Cy.</span></li></ul></div>`;
  const question = `<div itemscope itemtype="https://schema.org/Question"><h1 itemprop="name">Why does it leak?</h1><div itemprop="text">${says('Ada')}</div><span itemprop="author" itemscope><span itemprop="name">Ada Quill</span></span>`;

  it('comes out as the question, the accepted answer, then the others, each with who wrote it', () => {
    const { text, headings, authors } = ofPage(
      `${question}${answer('Bo', 'suggestedAnswer')}${answer('Wilma', 'acceptedAnswer')}</div>`,
    );
    expect(headings).toEqual(['Accepted answer: Wilma', 'Answer: Bo']);
    expect(authors).toEqual(['Ada Quill']);
    expect(text.indexOf('Ada tells')).toBe(0);
    expect(text.indexOf('Wilma tells')).toBeLessThan(text.indexOf('Bo tells'));
    expect(text).not.toMatch(/Share|Cy|rights|\b7\b/);
  });

  it('is found by what JSON-LD says of it where the markup says nothing', () => {
    const { headings, text } = ofPage(
      `<div class="q">${says('Ada')}</div><div class="r"><span>9 votes</span><div class="t">${says('Bo')}</div></div><div class="r"><div class="t">${says('Wilma')}</div></div>`,
      data({
        '@type': 'QAPage',
        mainEntity: {
          '@type': 'Question',
          name: 'Why does it leak?',
          text: says('Ada'),
          acceptedAnswer: { '@type': 'Answer', text: says('Wilma'), author: { '@type': 'Person', name: 'Wilma' } },
          suggestedAnswer: [{ '@type': 'Answer', text: says('Bo'), author: { '@type': 'Person', name: 'Bo' } }],
        },
      }),
    );
    expect(headings).toEqual(['Accepted answer: Wilma', 'Answer: Bo']);
    expect(text).not.toContain('9 votes');
  });

  it('is not made of a list of questions, of which each has its one answer', () => {
    const one = (who: string) =>
      `<div itemscope itemtype="https://schema.org/Question"><h3 itemprop="name">What does ${who} say?</h3><div itemprop="acceptedAnswer" itemscope itemtype="https://schema.org/Answer"><div itemprop="text">${says(who)}</div></div></div>`;
    const { text, headings } = ofPage(`<main>${['Ada', 'Bo', 'Cy'].map(one).join('')}</main>`);
    expect(headings).toEqual([]);
    expect(text).toMatch(/What does Ada say\?[\s\S]*Ada tells[\s\S]*What does Bo say\?/);
  });

  it('does not stand for a long text that it is only at the end of', () => {
    const { text } = ofPage(
      `<article>${says('The story', 30)}</article><div itemscope itemtype="https://schema.org/Question"><div itemprop="text">Is it true?</div><div itemscope itemtype="https://schema.org/Answer" itemprop="acceptedAnswer"><div itemprop="text">It is, says the editor.</div></div></div>`,
    );
    expect(text).toContain('The story tells');
  });
});

describe('a thread of posts', () => {
  const people = ['Ada Quill', 'bo_77', 'Ada Quill', 'wilma'];

  // Shapes that forum software has in common; common practice.
  it.each<[string, (who: string, n: number) => string]>([
    [
      'boxes with a profile beside',
      (who, n) =>
        `<div id="p${n}" class="post bg${n % 2} online"><dl class="postprofile"><dt><a href="/memberlist?u=${n}" class="username">${who}</a></dt><dd>Posts: 40${n}</dd></dl><div class="postbody"><p class="date">Tue Mar 0${n + 1}, 7:14 am</p><div class="content">${says(who)}<div class="signature">Fair winds, and mind the buoy</div></div></div></div>`,
    ],
    [
      'articles with a head',
      (who) =>
        `<article class="message message--post"><header><h4 class="message-name"><a href="/members/x.1/">${who}</a></h4></header><div class="message-body">${says(who)}</div><footer><a href="/like">Like</a></footer></article>`,
    ],
    [
      'a list',
      (who, n) =>
        `<li class="topic-post" id="post_${n}"><div class="names"><span class="author">${who}</span></div><div class="cooked">${says(who)}</div><button>Reply</button></li>`,
    ],
  ])('made of %s comes out post by post, under the names', (_shape, post) => {
    const { text, headings, authors } = ofPage(
      `<h1>Why does it leak?</h1><div class="thread">${people.map(post).join('')}</div>`,
    );
    expect(headings).toEqual(people);
    expect(authors).toEqual(['Ada Quill']);
    expect(text).not.toMatch(/Fair winds|Like|Reply|Posts: 40|7:14/);
    expect(text.match(/tells at some length/g)).toHaveLength(12);
  });

  it.each([
    [
      'an article with comments below it',
      `<article class="post"><div class="content">${says('The story', 8)}</div></article><div class="comments">${people
        .map(
          (who) => `<div class="comment-post"><b class="author">${who}</b><div class="body">${says(who)}</div></div>`,
        )
        .join('')}</div>`,
    ],
    [
      'a list of articles by several people',
      people
        .map(
          (who, n) =>
            `<div class="post"><h2><a href="/${n}">Another tale, number ${n}</a></h2><span class="author">${who}</span><div class="content">${says(who, 2)}</div></div>`,
        )
        .join(''),
    ],
  ])('is not made of %s', (_kind, body) => {
    const { headings } = ofPage(body);
    for (const who of people) expect(headings).not.toContain(who);
  });

  it('is made where the page says that it is one, of two posts too', () => {
    const { headings } = ofPage(
      `<div>${people
        .slice(0, 2)
        .map(
          (who) =>
            `<div itemscope itemtype="https://schema.org/${who === 'bo_77' ? 'Comment' : 'DiscussionForumPosting'}"><b itemprop="author">${who}</b><div itemprop="text">${says(who)}</div></div>`,
        )
        .join('')}</div>`,
    );
    expect(headings).toEqual(['Ada Quill', 'bo_77']);
  });
});
