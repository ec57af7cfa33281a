import { suggestTags } from '.';

const near = (id: string, nearness: number) => ({ id, nearness, shared: [], resemblance: 0 });
const TAGS: Readonly<Record<string, readonly string[]>> = {
  a: ['boats/repair', 'Wood'],
  b: ['wood'],
  c: ['law'],
  d: [],
};
const tagsOf = (id: string) => TAGS[id] ?? [];

it('suggests what near items have, by how near they are taken together, with the items as the reason', () => {
  expect(suggestTags([near('a', 0.4), near('b', 0.3), near('c', 0.1)], tagsOf, new Set(), 5)).toEqual([
    { tag: 'Wood', because: ['a', 'b'] },
    { tag: 'boats/repair', because: ['a'] },
  ]);
});

it('leaves out what the item has, what only far ones have, and what is more than is wanted', () => {
  const related = [near('a', 0.4), near('b', 0.3), near('c', 0.1)];
  expect(suggestTags(related, tagsOf, new Set(['wood']), 5).map(({ tag }) => tag)).toEqual(['boats/repair']);
  expect(suggestTags(related, tagsOf, new Set(), 1).map(({ tag }) => tag)).toEqual(['Wood']);
  expect(suggestTags([], tagsOf, new Set(), 5)).toEqual([]);
});
