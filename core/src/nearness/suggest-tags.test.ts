import { suggestTags } from '.';

const near = (id: string, nearness: number) => ({ id, nearness, shared: [], resemblance: 0 });
const TAGS: Readonly<Record<string, readonly string[]>> = {
  a: ['boats/repair', 'Wood'],
  b: ['wood'],
  c: ['law'],
  d: [],
};
const tagsOf = (id: string) => TAGS[id] ?? [];
const asked = { tagsOf, named: [], own: new Set<string>(), most: 5 };

it('suggests what near items have, by how near they are taken together, with the items as the reason', () => {
  expect(suggestTags({ ...asked, related: [near('a', 0.4), near('b', 0.3), near('c', 0.1)] })).toEqual([
    { tag: 'Wood', isNamed: false, because: ['a', 'b'] },
    { tag: 'boats/repair', isNamed: false, because: ['a'] },
  ]);
});

it('leaves out what the item has, what only far ones have, and what is more than is wanted', () => {
  const related = [near('a', 0.4), near('b', 0.3), near('c', 0.1)];
  expect(suggestTags({ ...asked, related, own: new Set(['wood']) }).map(({ tag }) => tag)).toEqual(['boats/repair']);
  expect(suggestTags({ ...asked, related, most: 1 }).map(({ tag }) => tag)).toEqual(['Wood']);
  expect(suggestTags({ ...asked, related: [] })).toEqual([]);
});

it('suggests a tag whose word the text itself makes much of, before what is only near, and never one that it has', () => {
  const related = [near('c', 0.25), near('b', 0.05)];
  expect(suggestTags({ ...asked, related, named: ['wood'] })).toEqual([
    { tag: 'wood', isNamed: true, because: ['b'] },
    { tag: 'law', isNamed: false, because: ['c'] },
  ]);
  expect(suggestTags({ ...asked, related: [], named: ['wood'], own: new Set(['wood']) })).toEqual([]);
});
