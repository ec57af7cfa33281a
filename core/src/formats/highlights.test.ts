import { fromMarkdown } from 'mdast-util-from-markdown';
import type { Highlight } from '../model';
import { newItem } from '../sync';
import { highlightsAsAnnotations, highlightsAsMarkdown } from './highlights';

const AT = '000000001-0000-a';
const uuid = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const item = newItem({
  type: 'save',
  id: uuid(1),
  itemId: uuid(2),
  address: 'https://tides.example/eelgrass',
  savedAt: 0,
  stamp: AT,
});
item.choices.title = { value: 'Eelgrass *and* silt', at: AT };
const highlight = (exact: string, note = '', start: number | null = 12): Highlight => ({
  id: uuid(3),
  itemId: item.id,
  madeAt: Date.UTC(2026, 10, 25, 12),
  choices: {
    kind: { value: 'to-do', at: AT },
    passage: { value: { exact, prefix: 'before ', suffix: ' after', start, copyId: null }, at: AT },
    note: { value: note, at: AT },
    removed: { value: false, at: AT },
  },
});

it('as Markdown says what was marked, word for word, with its source', () => {
  const written = highlightsAsMarkdown([
    { item, highlights: [highlight('The *beds* hold\n1. the silt_ [sic] <b>', 'Ask **Ines**.')] },
  ]);
  const [heading, source, quotation, note] = fromMarkdown(written).children;
  const textOf = (node: unknown): string => {
    const { value, children } = node as { value?: string; children?: unknown[] };
    return value ?? (children ?? []).map(textOf).join('');
  };
  expect(heading).toMatchObject({ type: 'heading', depth: 2 });
  expect(textOf(heading)).toBe('Eelgrass *and* silt');
  expect(textOf(source)).toContain('https://tides.example/eelgrass');
  expect(quotation?.type).toBe('blockquote');
  expect(textOf(quotation)).toBe('The *beds* hold\n1. the silt_ [sic] <b>To do');
  expect(textOf(note)).toBe('Ask Ines.');
});

it('as web annotations has the members that the W3C model asks for', () => {
  // Web Annotation Data Model (W3C Recommendation, 23 February 2017): 3.1, 3.3.5, 4.2.4, 4.2.5, 5.
  expect(highlightsAsAnnotations([{ item, highlights: [highlight('the silt', 'Ask **Ines**.')] }])).toEqual({
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    type: 'AnnotationPage',
    items: [
      {
        id: `urn:uuid:${uuid(3)}`,
        type: 'Annotation',
        motivation: ['highlighting', 'commenting'],
        created: '2026-11-25T12:00:00.000Z',
        body: [
          { type: 'TextualBody', purpose: 'tagging', value: 'to-do' },
          { type: 'TextualBody', purpose: 'commenting', format: 'text/markdown', value: 'Ask **Ines**.' },
        ],
        target: {
          source: 'https://tides.example/eelgrass',
          selector: [
            { type: 'TextQuoteSelector', exact: 'the silt', prefix: 'before ', suffix: ' after' },
            { type: 'TextPositionSelector', start: 12, end: 20 },
          ],
        },
      },
    ],
  });
});

it('as web annotations says nothing of a place that it does not know', () => {
  const page = JSON.stringify(highlightsAsAnnotations([{ item, highlights: [highlight('silt', '', null)] }]));
  expect(page).not.toContain('TextPositionSelector');
  expect(page).toContain('"motivation":"highlighting"');
});
