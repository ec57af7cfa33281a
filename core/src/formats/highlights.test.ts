import { fromMarkdown } from 'mdast-util-from-markdown';
import type { Highlight, Note } from '../model';
import { notesUnder, ownNote } from '../notes';
import { newItem } from '../records';
import { highlightFrom, noteFrom } from '../testing';
import { highlightsAsCsv } from './highlight-table';
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
const highlight = (exact: string, start: number | null = 12): Highlight =>
  highlightFrom({
    id: uuid(3),
    itemId: item.id,
    madeAt: Date.UTC(2026, 10, 25, 12),
    kind: 'to-do',
    passage: { exact, prefix: 'before ', suffix: ' after', start },
  });
const ask = noteFrom({ ...ownNote.ofHighlight({ id: uuid(3), itemId: item.id }), text: 'Ask **Ines**.' });

it('as Markdown says what was marked, word for word, with its source', () => {
  const written = highlightsAsMarkdown([
    { item, highlights: [highlight('The *beds* hold\n1. the silt_ [sic] <b>')], notes: [ask] },
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
  expect(highlightsAsAnnotations([{ item, highlights: [highlight('the silt')], notes: [ask] }])).toEqual({
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
  const page = JSON.stringify(highlightsAsAnnotations([{ item, highlights: [highlight('silt', null)], notes: [] }]));
  expect(page).not.toContain('TextPositionSelector');
  expect(page).toContain('"motivation":"highlighting"');
});

describe('what was written on them', () => {
  const note = (n: number, text: string, on: Note['on'] = { kind: 'item' }): Note =>
    noteFrom({ id: uuid(n), madeAt: Date.UTC(2026, 10, 25, 13, n), itemId: item.id, on, text });
  const marked = {
    item,
    highlights: [highlight('the silt')],
    notes: [
      ask,
      note(13, 'She does not.', { kind: 'note', id: uuid(12) }),
      note(11, 'On the whole.'),
      note(12, 'Does she know?', { kind: 'highlight', id: uuid(3) }),
      note(14, 'Of a highlight that is not here.', { kind: 'highlight', id: uuid(99) }),
    ],
  };

  it('stands under what it was written on', () => {
    expect(notesUnder(marked, uuid(3)).map(({ id }) => id)).toEqual([uuid(3), uuid(12), uuid(13)]);
    expect(notesUnder(marked, null).map(({ id }) => id)).toEqual([uuid(11), uuid(14)]);
    const circle = {
      highlights: [],
      notes: [note(1, 'a', { kind: 'note', id: uuid(2) }), note(2, 'b', { kind: 'note', id: uuid(1) })],
    };
    expect(notesUnder(circle, null)).toHaveLength(2);
  });

  it('goes along in each format', () => {
    const written = highlightsAsMarkdown([marked]);
    const order = ['the silt', 'Ask', 'Does she know?', 'She does not.', 'On the whole.'].map((words) =>
      written.indexOf(words),
    );
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(order[0]).toBeGreaterThan(0);
    expect(highlightsAsCsv([marked])).toContain('"Ask **Ines**.\n\nDoes she know?\n\nShe does not."');
    const { items } = highlightsAsAnnotations([marked]) as {
      items: { motivation: unknown; target: unknown }[];
    };
    // Web Annotation Data Model 3.3.5: an annotation on another one replies to it.
    expect(items.slice(1).map(({ motivation, target }) => [motivation, target])).toEqual([
      ['replying', `urn:uuid:${uuid(12)}`],
      ['commenting', item.address],
      ['replying', `urn:uuid:${uuid(3)}`],
      ['replying', `urn:uuid:${uuid(99)}`],
    ]);
  });
});
