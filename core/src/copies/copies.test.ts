import fc from 'fast-check';
import type { Root } from 'hast';
import type { Capture, Choices, Tidying } from '../model';
import { plainText } from '../text';
import { compareCopies, fateOfCopy, saysGone, suggestTidying, tidiedTree, tidyingOf, withTidying } from '.';

const tree = (...paragraphs: string[]): Root => ({
  type: 'root',
  children: paragraphs.map((value) => ({
    type: 'element',
    tagName: 'p',
    properties: {},
    children: [{ type: 'text', value }],
  })),
});

describe('two copies compared', () => {
  it('takes the fewest paragraphs to come from one to the other', () => {
    // Myers 1986, "An O(ND) difference algorithm and its variations", figure 1: ABCABBA to CBABAC takes 5.
    const { changes } = compareCopies(tree(...'A B C A B B A'.split(' ')), tree(...'C B A B A C'.split(' ')));
    expect(changes.filter(({ kind }) => kind !== 'same')).toHaveLength(5);
  });

  it('shows the words that changed in a paragraph that is still there', () => {
    const { changes, addedWords, removedWords } = compareCopies(
      tree('The ferry leaves at nine.', 'The fare is four pounds for adults.', 'Dogs go free.'),
      tree('The ferry leaves at nine.', 'The fare is five pounds for all adults.', 'Cats too.'),
    );
    expect(changes[0]).toEqual({ kind: 'same', text: 'The ferry leaves at nine.' });
    expect(changes[1]).toEqual({
      kind: 'changed',
      words: [
        { kind: 'same', text: 'The fare is ' },
        { kind: 'removed', text: 'four' },
        { kind: 'added', text: 'five' },
        { kind: 'same', text: ' pounds for ' },
        { kind: 'added', text: 'all ' },
        { kind: 'same', text: 'adults.' },
      ],
    });
    expect(changes.slice(2)).toEqual([
      { kind: 'removed', text: 'Dogs go free.' },
      { kind: 'added', text: 'Cats too.' },
    ]);
    expect([addedWords, removedWords]).toEqual([4, 4]);
  });

  it('gives both texts back, whatever they are', () => {
    const paragraph = fc
      .array(fc.constantFrom('tide', 'ebb', 'flood', 'slack', 'neap'), { minLength: 1, maxLength: 8 })
      .map((words) => words.join(' '));
    fc.assert(
      fc.property(fc.array(paragraph, { maxLength: 8 }), fc.array(paragraph, { maxLength: 8 }), (a, b) => {
        const { changes } = compareCopies(tree(...a), tree(...b));
        const side = (drop: 'added' | 'removed') =>
          changes.flatMap((change) => {
            if (change.kind === 'changed')
              return [
                change.words
                  .filter(({ kind }) => kind !== drop)
                  .map(({ text }) => text)
                  .join(''),
              ];
            return change.kind === drop ? [] : [change.text];
          });
        expect(side('added')).toEqual(a);
        expect(side('removed')).toEqual(b);
      }),
    );
  });
});

describe('what becomes of a text that was fetched again', () => {
  const copy = { id: 'now', madeAt: 1, hash: 'h', wordCount: 1000, origin: 'fetched' } as const;
  const page = (verdict: 'whole' | 'partial' | 'failed', wordCount = 1000) =>
    ({
      copyId: 'now',
      wordCount,
      cameThrough: { verdict, signs: [] },
    }) as unknown as NonNullable<Capture['page']>;
  const known = (verdict: 'whole' | 'partial' | 'failed') => ({ page: page(verdict), copies: [copy] });

  it.each([
    ['the first text', { page: null, copies: [] }, page('whole'), 'x', 'read'],
    ['the first, failed', { page: null, copies: [] }, page('failed', 3), 'x', 'read'],
    ['the same text', known('whole'), page('whole'), 'h', 'unchanged'],
    ['a new text', known('whole'), page('whole', 900), 'x', 'read'],
    ['an error page over a good copy', known('whole'), page('failed', 12), 'x', 'dropped'],
    ['an error page over a partial copy', known('partial'), page('failed', 12), 'x', 'dropped'],
    ['a text over a failed copy', known('failed'), page('partial', 50), 'x', 'read'],
    ['a teaser over a good copy', known('whole'), page('partial', 200), 'x', 'beside'],
    ['nearly all of it over a good copy', known('whole'), page('partial', 950), 'x', 'read'],
  ] as const)('%s', (_what, before, arrived, hash, fate) =>
    expect(fateOfCopy({ page: before.page, copies: [...before.copies] }, { ...arrived, hash })).toBe(fate),
  );

  it('tells a page that is gone from one that only asks for something', () => {
    expect(saysGone([{ code: 'error-page' }])).toBe(true);
    expect(saysGone([{ code: 'parked' }])).toBe(true);
    expect(saysGone([{ code: 'sign-in' }, { code: 'consent' }, { code: 'paywall' }])).toBe(false);
  });
});

describe('tidying', () => {
  const choices = (tidied: Tidying[] = []) => ({ tidied: { value: tidied, at: '' } }) as unknown as Choices;
  const first = tree('The story begins.', 'Part 3 of 7. Sign up for our letter!', 'It ends.');

  it('leaves blocks out of what is shown, and puts them back', () => {
    const [tidying] = withTidying(choices(), 'a', first, [1]);
    expect(plainText(tidiedTree(first, tidying?.out ?? [])).text).toBe('The story begins.\n\nIt ends.');
    expect(tidiedTree(first, [])).toBe(first);
    expect(plainText(first).text).toContain('Sign up');
  });

  it('is kept for each copy, the latest first', () => {
    const once = withTidying(choices(), 'a', first, [1]);
    const twice = withTidying(choices(once), 'b', first, [0, 2, 2]);
    expect(twice.map(({ copyId, out }) => [copyId, out])).toEqual([
      ['b', [0, 2]],
      ['a', [1]],
    ]);
    expect(tidyingOf(choices(twice), 'a')?.out).toEqual([1]);
    expect(tidyingOf(choices(twice), 'c')).toBeUndefined();
    expect(withTidying(choices(twice), 'b', first, [])[0]).toMatchObject({ copyId: 'b', out: [] });
  });

  it('is suggested for the same block on another page, numbers aside, and for no other', () => {
    const tidied = withTidying(choices(), 'a', first, [1]);
    const later = tree('Another story.', 'Part 4 of 7. Sign up for our letter!', 'Sign up, they said.', '');
    expect(suggestTidying(later, tidied)).toEqual([1]);
    expect(suggestTidying(later, [])).toEqual([]);
  });

  it('is suggested for a picture that comes again', () => {
    const picture = (src: string): Root => ({
      type: 'root',
      children: [
        {
          type: 'element',
          tagName: 'figure',
          properties: {},
          children: [{ type: 'element', tagName: 'img', properties: { src, alt: '' }, children: [] }],
        },
      ],
    });
    const tidied = withTidying(choices(), 'a', picture('/api/pictures/1.webp'), [0]);
    expect(suggestTidying(picture('/api/pictures/1.webp'), tidied)).toEqual([0]);
    expect(suggestTidying(picture('/api/pictures/2.webp'), tidied)).toEqual([]);
  });
});
