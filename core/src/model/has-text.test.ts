import { newItem } from '../records';
import { pageFrom, uuid } from '../testing';
import { hasText } from '.';

it('an item has a text when words of its page came through, whole or in part, and not when something else stood there', () => {
  const item = newItem({
    type: 'save',
    id: uuid(1),
    itemId: uuid(1),
    address: 'https://x.example/a',
    savedAt: 1,
    stamp: '000000001-0000-a',
  });
  expect(hasText(item)).toBe(false);
  const page = pageFrom({ title: 'A', wordCount: 20, minutes: 1, copyId: uuid(2) });
  for (const [verdict, is] of [
    ['whole', true],
    ['partial', true],
    ['failed', false],
  ] as const) {
    item.capture.page = { ...page, cameThrough: { verdict, signs: [] } };
    expect(hasText(item)).toBe(is);
  }
});
