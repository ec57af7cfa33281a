import { readHighlightFile } from '../bring-in';
import type { Card, Note } from '../model';
import { ownNote } from '../notes';
import { cardKind, newItem } from '../records';
import { highlightFrom, noteFrom } from '../testing';
import { cardsAsTable, highlightsAsAnnotations, highlightsAsCsv, markdownTree, readCardTable } from '.';

const AT = '000000001-0000-a';
const uuid = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const card = (front: string, back: string): Card =>
  cardKind.apply(undefined, {
    type: 'card',
    id: uuid(1),
    stamp: AT,
    cardId: uuid(2),
    madeAt: 0,
    source: null,
    set: { front, back },
  })!;

describe('cards as a table', () => {
  const cards = [
    card('Why is the lead hollow?', 'For tallow, "armed"'),
    card('[[Caulk]] the seam,\nthen [[pay]] it.', ''),
  ];

  it.each([',', '\t'] as const)('come back as they were, parted by %j', (delimiter) => {
    const written = cardsAsTable(cards, delimiter, () => 'What the lead brought up');
    expect(readCardTable(written)).toEqual({
      cards: cards.map(({ choices }) => ({ front: choices.front.value, back: choices.back.value })),
      faults: [],
    });
  });

  it.each([',', '\t'] as const)(
    'run nothing in a spreadsheet, and come back as they were, parted by %j',
    (delimiter) => {
      // OWASP, "CSV Injection": what begins with one of these is run.
      const hostile = ["=cmd|' /C calc'!A0", '+1+1', '-2', '@SUM(A1)', "'=quoted", "''-x"].map((text) =>
        card(text, '=1+1'),
      );
      const written = cardsAsTable(hostile, delimiter, () => '=HYPERLINK("x")');
      const cells = written
        .split('\r\n')
        .slice(1)
        .flatMap((row) => row.split(delimiter))
        .map((cell) => cell.replace(/^"/, ''));
      expect(cells.filter((cell) => /^[=+\-@]/.test(cell))).toEqual([]);
      expect(readCardTable(written).cards.map(({ front, back }) => [front, back])).toEqual(
        hostile.map(({ choices }) => [choices.front.value, choices.back.value]),
      );
    },
  );

  it('ask in the first column and answer in the second, a row for each gap', () => {
    const [head, , first, second] = cardsAsTable(cards, '\t', () => '').split('\r\n');
    expect(head).toBe('question\tanswer\tsentence\tsource');
    expect(first?.startsWith('"[…] the seam,\nthen pay it."\tCaulk\t')).toBe(true);
    expect(second?.startsWith('"Caulk the seam,\nthen […] it."\tpay\t')).toBe(true);
  });

  it('are read from any two columns, and what is no card is named with its reason', () => {
    const read = readCardTable('Ebb?;"Out; and down"\nFlood?;\n;In\n[[Slack]] water;');
    expect(read.cards).toEqual([
      { front: 'Ebb?', back: 'Out; and down' },
      { front: '[[Slack]] water', back: '' },
    ]);
    expect(read.faults).toEqual([
      { row: 2, says: 'It has no answer and no gap.' },
      { row: 3, says: 'It has no question.' },
    ]);
  });
});

describe('highlights as a table, and from elsewhere', () => {
  const item = newItem({
    type: 'save',
    id: uuid(1),
    itemId: uuid(2),
    address: 'https://tides.example/eelgrass',
    savedAt: 0,
    stamp: AT,
  });
  item.choices.title = { value: 'Eelgrass, silt', at: AT };
  const highlight = highlightFrom({
    id: uuid(3),
    itemId: item.id,
    madeAt: Date.UTC(2026, 10, 25, 12),
    kind: 'to-do',
    passage: { exact: 'the "silt",\nall of it', prefix: 'before ', suffix: ' after', start: 12 },
  });
  const ask = noteFrom({ ...ownNote.ofHighlight(highlight), text: 'Ask Ines.' });
  const marked = [{ item, highlights: [highlight], notes: [ask] }];
  const expected = {
    quotation: 'the "silt",\nall of it',
    kind: 'to-do',
    note: 'Ask Ines.',
    address: item.address,
    madeAt: highlight.madeAt,
  };

  it('come back from CSV', () => {
    const read = readHighlightFile(highlightsAsCsv(marked));
    expect(read).toMatchObject({ highlights: [{ ...expected, title: 'Eelgrass, silt' }], faults: [] });
  });

  it('have what was written on the item alone in a row of its own', () => {
    const note = (n: number, text: string, on: Note['on'], madeAt: number): Note =>
      noteFrom({ id: uuid(n), itemId: item.id, on, madeAt, text });
    const notes = [
      ask,
      note(4, 'Of the highlight.', { kind: 'highlight', id: uuid(3) }, 5),
      note(5, 'A reply, "quoted".', { kind: 'note', id: uuid(6) }, 9),
      note(6, 'Of the item.', { kind: 'item' }, 7),
    ];
    expect(
      highlightsAsCsv([{ item, highlights: [highlight], notes }])
        .split('\r\n')
        .slice(1),
    ).toEqual([
      '"the ""silt"",\nall of it",to-do,"Ask Ines.\n\nOf the highlight.","Eelgrass, silt",https://tides.example/eelgrass,2026-11-25T12:00:00.000Z',
      ',,"Of the item.\n\nA reply, ""quoted"".","Eelgrass, silt",https://tides.example/eelgrass,1970-01-01T00:00:00.007Z',
    ]);
    expect(highlightsAsCsv([{ item, highlights: [], notes: [] }]).trim()).toBe(
      'quotation,kind,note,title,address,date',
    );
  });

  it('come back from web annotations with what stands around them', () => {
    const read = readHighlightFile(JSON.stringify(highlightsAsAnnotations(marked)));
    expect(read).toMatchObject({
      highlights: [{ ...expected, prefix: 'before ', suffix: ' after' }],
      faults: [],
    });
  });

  it('are read from the W3C’s own example of a quotation (Web Annotation Data Model 2017, example 25)', () => {
    // Shortened to what concerns the quotation; the values are as published (from memory).
    const example = {
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      id: 'http://example.org/anno23',
      type: 'Annotation',
      body: 'http://example.org/comment1',
      target: {
        source: 'http://example.org/page1',
        selector: {
          type: 'TextQuoteSelector',
          exact: 'anotation',
          prefix: 'this is an ',
          suffix: ' that has some',
        },
      },
    };
    expect(readHighlightFile(JSON.stringify(example)).highlights).toMatchObject([
      { quotation: 'anotation', address: 'http://example.org/page1', prefix: 'this is an ' },
    ]);
  });

  it('are read from plain text: a quotation, where it stands, when it was taken', () => {
    const written =
      '“High water is twice a day.”\n— What the lead brought up\nhttps://chartroom.example/lead\n2026-03-04\n\n> Two lines\n> of it';
    expect(readHighlightFile(written).highlights).toMatchObject([
      {
        quotation: 'High water is twice a day.',
        title: 'What the lead brought up',
        address: 'https://chartroom.example/lead',
        madeAt: Date.parse('2026-03-04'),
      },
      { quotation: 'Two lines\nof it', title: '', address: '', madeAt: null },
    ]);
  });

  it.each([
    ['', ['The file is empty.']],
    ['{ not json', ['It begins as JSON does but cannot be read as JSON.']],
    ['[{"target": "http://a.example/"}]', ['Annotation 1 quotes nothing.']],
    ['quote,title\n,Lost\n', ['Row 2 quotes nothing.']],
  ])('says what is wrong with %j', (written, faults) => {
    expect(readHighlightFile(written)).toEqual({ highlights: [], faults });
  });
});

describe('the reader’s own Markdown', () => {
  const names = (node: unknown): string[] => {
    const { tagName, children } = node as { tagName?: string; children?: unknown[] };
    return [...(tagName ? [tagName] : []), ...(children ?? []).flatMap(names)];
  };

  it('is a tree of what it stands for', () => {
    const written = '# Ebb\n\n*Out* and `down`\n\n- one\n\n[a](https://a.example/)';
    expect(names(markdownTree(written))).toEqual(['h1', 'p', 'em', 'code', 'ul', 'li', 'p', 'a']);
  });

  it('runs nothing and leads to nothing that runs', () => {
    const written =
      '<script>alert(1)</script> <img src=x onerror=alert(1)> [x](javascript:alert(1)) ![y](javascript:z)';
    expect(JSON.stringify(markdownTree(written))).not.toMatch(/script|onerror/);
  });
});
