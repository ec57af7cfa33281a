import type { ElementContent } from 'hast';
import type { DossierEntry, Item } from '../model';
import { newItem } from '../records';
import { dossierFrom, entryFrom, highlightFrom, noteFrom, pageFrom, uuid } from '../testing';
import { chosenItems, compileDossier, itemsIn, picturesInText, sectionLength, unfolded } from '.';

const DOSSIER = uuid(1);
const [ITEM, OTHER, MARK, NOTE] = [uuid(2), uuid(3), uuid(4), uuid(5)];
const item = (id: string, thumbnail: string | null = null): Item => {
  const made = newItem({
    id,
    stamp: '000000001-0000-a',
    type: 'save',
    itemId: id,
    address: `https://x.example/${id}`,
    savedAt: 1,
  });
  return { ...made, capture: { ...made.capture, page: pageFrom({ title: id, thumbnail }) } };
};
let made = 0;
const entry = (more: Omit<Parameters<typeof entryFrom>[0], 'id' | 'dossierId' | 'rank'>): DossierEntry =>
  entryFrom({ id: uuid(100 + made), dossierId: DOSSIER, rank: `a${made++}`, ...more });

it('tells what is in a dossier, in its order, and says of what has gone that it has', () => {
  made = 0;
  const entries = [
    entry({ part: { kind: 'heading' }, text: ' Engines ' }),
    entry({ part: { kind: 'item', itemId: ITEM } }),
    entry({ part: { kind: 'passage', itemId: ITEM, highlightId: MARK } }),
    entry({ part: { kind: 'note', noteId: NOTE }, purpose: 'judgement' }),
    entry({ part: { kind: 'search' }, text: 'larch' }),
    entry({ part: { kind: 'item', itemId: uuid(77) } }),
    entry({ part: { kind: 'passage', itemId: ITEM, highlightId: uuid(78) } }),
    entry({ part: { kind: 'picture', itemId: OTHER, hash: 'a'.repeat(64) }, text: 'The wheelhouse' }),
    entry({ part: { kind: 'item', itemId: OTHER }, removed: true }),
  ];
  const compiled = compileDossier(dossierFrom({ id: DOSSIER, title: 'A new engine' }), [...entries].reverse(), {
    item: (id) => [item(ITEM, 'b'.repeat(64)), item(OTHER)].find((each) => each.id === id),
    highlight: (id) =>
      id === MARK ? highlightFrom({ id: MARK, itemId: ITEM, passage: { exact: 'Quiet.' } }) : undefined,
    note: (id) => (id === NOTE ? noteFrom({ id: NOTE, text: 'Too heavy.' }) : undefined),
    found: (written) => (written === 'larch' ? [item(OTHER)] : []),
  });
  expect(compiled.title).toBe('A new engine');
  expect(compiled.parts.map(({ kind }) => kind)).toEqual([
    'heading',
    'item',
    'passage',
    'note',
    'search',
    'gone',
    'gone',
    'picture',
  ]);
  expect(compiled.parts[0]).toMatchObject({ text: 'Engines', depth: 1 });
  expect(compiled.parts[2]).toMatchObject({ words: 'Quiet.', mark: 'key' });
  expect(compiled.parts[3]).toMatchObject({ markdown: 'Too heavy.', purpose: 'judgement' });
  expect(itemsIn(compiled).map(({ id }) => id)).toEqual([ITEM, OTHER]);
  expect(chosenItems(compiled).map(({ id }) => id)).toEqual([ITEM, OTHER]);
});

it('finds the pictures of a text that the library has, each once, with what they show', () => {
  const img = (src: string, alt?: string): ElementContent => ({
    ...{ type: 'element', tagName: 'img', children: [] },
    properties: { src, ...(alt === undefined ? {} : { alt }) },
  });
  const [kept, other] = ['a', 'b'].map((each) => `/api/pictures/${each.repeat(64)}.webp`) as [string, string];
  const children = [img(kept, 'A boat'), img('https://x.example/a.png'), img(other), img(kept, 'again')];
  expect(
    picturesInText({ type: 'root', children: [{ type: 'element', tagName: 'p', properties: {}, children }] }),
  ).toEqual([
    { hash: 'a'.repeat(64), alt: 'A boat' },
    { hash: 'b'.repeat(64), alt: '' },
  ]);
});

it('folds a section with the sections inside it, and not the next', () => {
  made = 0;
  const heading = (nested = false) => entry({ part: { kind: 'heading' }, nested });
  const thing = () => entry({ part: { kind: 'item', itemId: ITEM } });
  const ordered = [thing(), heading(), thing(), heading(true), thing(), thing(), heading(), thing()];
  expect(ordered.map((_, at) => sectionLength(ordered, at))).toEqual([1, 5, 1, 3, 1, 1, 2, 1]);
  const ids = (folded: number[]) => {
    const shown = unfolded(ordered, new Set(folded.map((at) => ordered[at]?.id ?? '')));
    return shown.map((each) => ordered.indexOf(each));
  };
  expect(ids([1])).toEqual([0, 1, 6, 7]);
  expect(ids([3])).toEqual([0, 1, 2, 3, 6, 7]);
  expect(ids([6])).toEqual([0, 1, 2, 3, 4, 5, 6]);
});
