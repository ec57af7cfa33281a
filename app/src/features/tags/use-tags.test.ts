import type { Item } from '@dorvel/core/model';
import { tagChanges, tagsIn } from './use-tags';

const item = (id: string, tags: readonly string[], stage = 'queue') =>
  ({
    id,
    choices: { stage: { value: stage } },
    tags: Object.fromEntries(tags.map((name) => [name.toLowerCase(), { value: name, at: '000000001-0000-a' }])),
  }) as unknown as Item;

const LIBRARY = [
  item('a', ['Garden/soil', 'sea']),
  item('b', ['garden', 'Garden/Water']),
  item('c', ['gardening']),
  item('d', ['sea'], 'let-go'),
];

it('tags are counted once an item, parents too, without what was let go', () => {
  expect(tagsIn(LIBRARY).map(({ key, count }) => [key, count])).toEqual([
    ['garden', 2],
    ['garden/soil', 1],
    ['garden/water', 1],
    ['gardening', 1],
    ['sea', 1],
  ]);
});

it('renaming takes along what nests, leaves its like alone, and can be taken back', () => {
  expect(tagChanges(LIBRARY, 'garden', 'Plot')).toEqual([
    {
      itemId: 'a',
      set: { 'garden/soil': null, 'plot/soil': 'Plot/soil' },
      back: { 'garden/soil': 'Garden/soil', 'plot/soil': null },
    },
    {
      itemId: 'b',
      set: { garden: null, plot: 'Plot', 'garden/water': null, 'plot/water': 'Plot/Water' },
      back: { garden: 'garden', plot: null, 'garden/water': 'Garden/Water', 'plot/water': null },
    },
  ]);
});

it('another spelling of a tag is the same tag', () => {
  expect(tagChanges(LIBRARY, 'gardening', 'Gardening')).toEqual([
    { itemId: 'c', set: { gardening: 'Gardening' }, back: { gardening: 'gardening' } },
  ]);
});

it('merging into a tag that an item has keeps it when it is taken back, and deleting takes all off', () => {
  const both = [item('a', ['sea', 'water'])];
  expect(tagChanges(both, 'water', 'sea')).toEqual([
    { itemId: 'a', set: { water: null, sea: 'sea' }, back: { water: 'water', sea: 'sea' } },
  ]);
  expect(tagChanges(LIBRARY, 'garden/soil', null)).toEqual([
    { itemId: 'a', set: { 'garden/soil': null }, back: { 'garden/soil': 'Garden/soil' } },
  ]);
});
