import type { ArticleTree } from '@dorvel/core/model';
import type { Element, ElementContent } from 'hast';
import { readyTree } from './ready-tree';

jest.mock('@/device/cache/snapshot-cache', () => ({ cacheSnapshotOf: jest.fn(), plainTextOf: jest.fn() }));

const element = (
  tagName: string,
  properties: Element['properties'],
  ...children: (string | ElementContent)[]
): Element => ({
  type: 'element',
  tagName,
  properties,
  children: children.map((child) => (typeof child === 'string' ? { type: 'text', value: child } : child)),
});
const tree = (...children: Element[]): ArticleTree => ({ type: 'root', children });
const all = (node: ArticleTree | Element, tagName: string): Element[] =>
  node.children.flatMap((child) =>
    child.type === 'element' ? [...(child.tagName === tagName ? [child] : []), ...all(child, tagName)] : [],
  );

it('a text as it is set tells where its blocks begin, and is worked out once', () => {
  const given = tree(element('p', {}, 'High.'), element('p', {}, 'Low.'));
  const ready = readyTree(given);
  expect(all(ready, 'p').map(({ properties }) => properties.dataStart)).toEqual([0, 7]);
  expect(readyTree(given)).toBe(ready);
  expect(all(given, 'p')[0]?.properties).toEqual({});
});

it('lets nothing in that a clean text does not have', () => {
  const given = tree(element('p', { onClick: 'alert(1)' }, 'High.'), element('script', {}, 'alert(1)'));
  expect(JSON.stringify(readyTree(given))).not.toContain('alert');
});

it('a picture in a link leads on, and what its caption says is not said twice', () => {
  const picture = (alt: string) => element('img', { src: 'https://tides.example/a.png', alt });
  const [inLink, inFigure, alone] = all(
    readyTree(
      tree(
        element('p', {}, element('a', { href: 'https://tides.example/' }, picture('A chart')), 'Charts'),
        element('figure', {}, picture('The pier at noon'), element('figcaption', {}, 'The pier at noon')),
        element('p', {}, picture('A goat'), 'Others'),
      ),
    ),
    'img',
  );
  expect(inLink?.properties.dataLinked).toBe(true);
  expect(inFigure?.properties).toMatchObject({ alt: '' });
  expect(alone?.properties).toMatchObject({ alt: 'A goat' });
  expect(alone?.properties.dataLinked).toBeUndefined();
});

it('a number stays beside its unit, and a longer cell may break', () => {
  const cells = all(
    readyTree(
      tree(
        element(
          'table',
          {},
          element('tbody', {}, element('tr', {}, element('td', {}, '12.42 h'), element('td', {}, 'the moon, mostly'))),
        ),
      ),
    ),
    'td',
  );
  expect(cells.map(({ properties }) => properties.dataShort)).toEqual([true, undefined]);
});

describe('a first paragraph', () => {
  const LEAD = 'The parish has lent the ferry a quiet engine for the winter, and wants it back in spring.';
  const isSetApart = (...blocks: Element[]) =>
    all(readyTree(tree(...blocks)), 'p').some(({ properties }) => properties.dataStandfirst === true);
  const bold = (...said: (string | ElementContent)[]) => element('p', {}, element('strong', {}, ...said));

  it('that is bold from end to end leads into the text', () => {
    expect(isSetApart(bold(LEAD), element('p', {}, LEAD))).toBe(true);
    expect(isSetApart(element('figure', {}, element('img', { alt: 'The quay' })), bold(LEAD))).toBe(true);
    expect(isSetApart(bold(LEAD, element('em', {}, ' Or so it says.')))).toBe(true);
  });

  it.each<[string, Element[]]>([
    ['has a plain word', [element('p', {}, element('strong', {}, LEAD), ' By Wilma Ostrander.')]],
    ['is a word or two', [bold('Skerrow, Tuesday.')]],
    ['is a whole page', [bold(LEAD.repeat(8))]],
    ['is not the first', [element('p', {}, LEAD), bold(LEAD)]],
    ['is a heading', [element('h2', {}, element('strong', {}, LEAD))]],
  ])('that %s does not', (_what, blocks) => {
    expect(isSetApart(...blocks)).toBe(false);
  });
});
