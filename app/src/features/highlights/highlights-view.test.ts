import type { Highlight, HighlightKind, Note } from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import { newItem } from '@dorvel/core/records';
import { highlightFrom, noteFrom } from '@dorvel/core/testing';
import { ALL_HIGHLIGHTS, facetsOf, highlightsByItem, inRuns } from './highlights-view';
import { markingOf } from './marking';
import { placeHighlights } from './use-highlights-in-text';
import { withoutEdges } from './use-selected-text';

// What these tests run in does not have it yet.
Object.assign(URL, { canParse: (address: string) => /^https?:/.test(address) });

const TEXT = 'The quay was empty. The ferry lay at the quay, and nobody came. Then a goat came.';
const uuid = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const item = (n: number) =>
  newItem({
    type: 'save',
    id: uuid(n),
    itemId: uuid(n),
    address: `https://example.org/${n}`,
    savedAt: n,
    stamp: '000000001-0000-a',
  });

function marked(id: number, words: string, kind: HighlightKind = 'key', itemId = 1): Highlight {
  const start = TEXT.indexOf(words);
  return highlightFrom({
    id: uuid(id),
    itemId: uuid(itemId),
    madeAt: id,
    kind,
    passage: {
      exact: words,
      prefix: TEXT.slice(Math.max(0, start - 48), start),
      suffix: TEXT.slice(start + words.length, start + words.length + 48),
      start,
      copyId: uuid(900),
    },
  });
}
const part = (words: string) => ({ start: TEXT.indexOf(words), end: TEXT.indexOf(words) + words.length });

describe('marking', () => {
  const marks = placeHighlights(TEXT, [
    marked(11, 'ferry lay'),
    marked(12, 'nobody came'),
    marked(13, 'goat', 'doubt'),
  ]);

  it('makes a new highlight where there is none of its kind', () => {
    expect(markingOf(part('The quay'), 'key', marks)).toEqual({ grows: null, part: part('The quay') });
    expect(markingOf(part('a goat came'), 'key', marks).grows).toBeNull();
  });

  it('grows one of its kind that it touches, and takes in the others', () => {
    const marking = markingOf(part('lay at the quay, and nobody'), 'key', marks);
    expect(marking).toMatchObject({
      grows: { id: uuid(11) },
      absorbs: [{ id: uuid(12) }],
      part: part('ferry lay at the quay, and nobody came'),
    });
  });

  it('leaves out the space at the edges, and takes nothing for nothing', () => {
    expect(withoutEdges(TEXT, { start: 3, end: 9 })).toEqual({ start: 4, end: 8 });
    expect(withoutEdges(TEXT, { start: 3, end: 4 })).toBeNull();
  });

  it('puts what has lost its place behind what has one', () => {
    const lost = marked(14, 'The quay was empty.');
    lost.choices.passage.value = {
      ...lost.choices.passage.value,
      exact: 'Words of an earlier copy, which said something else',
    };
    expect(
      placeHighlights(TEXT, [lost, marked(15, 'a goat')]).map(({ mark, placed }) => [mark.id, placed === null]),
    ).toEqual([
      [uuid(15), false],
      [uuid(14), true],
    ]);
  });
});

describe('all highlights', () => {
  const items = [item(1), item(2)];
  const all = [marked(21, 'nobody came'), marked(22, 'ferry lay', 'quote'), marked(23, 'a goat', 'doubt', 2)];
  const creme = noteFrom({
    ...ownNote.ofHighlight({ id: uuid(22), itemId: uuid(1) }),
    text: 'Crème de la crème',
  });
  const ids = (wanted: Partial<Parameters<typeof highlightsByItem>[3]>) =>
    highlightsByItem(all, [creme], items, { ...ALL_HIGHLIGHTS, ...wanted }).map(({ item: of, highlights }) => [
      of.id,
      highlights.map(({ id }) => id),
    ]);

  it('stand by item, the one marked last on top, in the order of its text', () => {
    expect(ids({})).toEqual([
      [uuid(2), [uuid(23)]],
      [uuid(1), [uuid(22), uuid(21)]],
    ]);
  });

  it('can be narrowed by item, kind and words, marks on letters aside', () => {
    expect(ids({ itemId: uuid(1), kind: 'quote' })).toEqual([[uuid(1), [uuid(22)]]]);
    expect(ids({ words: 'creme' })).toEqual([[uuid(1), [uuid(22)]]]);
    expect(highlightsByItem(all, [creme], items, { ...ALL_HIGHLIGHTS, kind: 'quote' })[0]?.notes).toEqual([creme]);
    expect(ids({ words: 'GOAT' })).toEqual([[uuid(2), [uuid(23)]]]);
    expect(ids({ words: 'nothing' })).toEqual([]);
  });

  it('can be narrowed by tag with those under it, by source and by day, and put in another order', () => {
    const at = '000000001-0000-a';
    const tagged = items.map((each, n) => ({
      ...each,
      tags: n === 0 ? { 'sea/tides': { value: 'Sea/Tides', at } } : { seaside: { value: 'Seaside', at } },
    }));
    const found = (wanted: Partial<Parameters<typeof highlightsByItem>[3]>) =>
      highlightsByItem(all, [], tagged, { ...ALL_HIGHLIGHTS, ...wanted }).map(({ highlights }) =>
        highlights.map(({ id }) => id),
      );
    expect(found({ tag: 'sea' })).toEqual([[uuid(22), uuid(21)]]);
    expect(found({ tag: 'sea/tides' })).toHaveLength(1);
    expect(found({ tag: 'side' })).toEqual([]);
    expect(found({ source: 'example.org' })).toHaveLength(2);
    expect(found({ source: 'example.com' })).toEqual([]);
    expect(found({ since: 22 })).toEqual([[uuid(23)], [uuid(22)]]);
    expect(found({ order: 'earliest' })).toEqual([[uuid(22), uuid(21)], [uuid(23)]]);
    expect(facetsOf(highlightsByItem(all, [], tagged, ALL_HIGHLIGHTS))).toEqual({
      tags: ['Sea/Tides', 'Seaside'],
      sources: ['example.org'],
    });
  });

  it('are taken along in the order in which they were gathered', () => {
    const [a, b, c] = all as [Highlight, Highlight, Highlight];
    const runs = (highlights: Highlight[]) =>
      inRuns(highlights, [], items).map(({ item: of, highlights: own }) => [of.id, own.map(({ id }) => id)]);
    expect(runs([b, a, c])).toEqual([
      [uuid(1), [uuid(22), uuid(21)]],
      [uuid(2), [uuid(23)]],
    ]);
    expect(runs([a, c, b])).toEqual([
      [uuid(1), [uuid(21)]],
      [uuid(2), [uuid(23)]],
      [uuid(1), [uuid(22)]],
    ]);
    expect(runs([marked(24, 'goat', 'key', 9)])).toEqual([]);
  });

  it('come with the notes on them and on their items, unless a kind is asked for', () => {
    const note = (n: number, itemId: number | null, text: string): Note =>
      noteFrom({ id: uuid(n), madeAt: n, itemId: itemId === null ? null : uuid(itemId), text });
    const notes = [note(31, 1, 'Ask the baker.'), note(32, 3, 'On an unmarked one.'), note(33, null, 'Free.')];
    const found = (wanted: Partial<Parameters<typeof highlightsByItem>[3]>) =>
      highlightsByItem(all, notes, [...items, item(3)], { ...ALL_HIGHLIGHTS, ...wanted }).map(
        ({ item: of, highlights, notes: written }) => [of.id, highlights.length, written.map(({ id }) => id)],
      );
    expect(found({})).toEqual([
      [uuid(3), 0, [uuid(32)]],
      [uuid(1), 2, [uuid(31)]],
      [uuid(2), 1, []],
    ]);
    expect(found({ words: 'baker' })).toEqual([[uuid(1), 0, [uuid(31)]]]);
    expect(found({ kind: 'doubt' })).toEqual([[uuid(2), 1, []]]);
    expect(found({ itemId: uuid(3) })).toEqual([[uuid(3), 0, [uuid(32)]]]);
    expect(found({ since: 32 })).toEqual([[uuid(3), 0, [uuid(32)]]]);
  });
});
