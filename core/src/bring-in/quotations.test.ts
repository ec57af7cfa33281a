import { readHighlightFile } from '.';

const day = (written: string): number => Date.parse(`${written}Z`);
const read = (written: string) =>
  readHighlightFile(written).highlights.map(({ quotation, title, place, madeAt, note }) => ({
    quotation,
    title,
    place,
    madeAt,
    note,
  }));

/** What the files below all say, each built in its own way. The layouts are common practice of e-book readers. */
const silt = { quotation: 'The silt settles where the water is slow.', place: 'page 12', note: '' };
const ebb = { quotation: 'At the ebb, look twice.\nThen look again.', place: 'page 40', note: '' };

describe('quotations from an e-book reader', () => {
  it.each([
    [
      'parted by lines of one sign, the source first',
      [
        'The Lead Line (M. Oddway)',
        '- Your highlight on page 12 | location 180-181 | Added on Tuesday, 3 March 2026 14:05:12',
        '',
        silt.quotation,
        '==========',
        '\ufeffThe Lead Line (M. Oddway)',
        '- Your highlight on page 40 | Added on Wednesday, 4 March 2026 09:00:00',
        '',
        'At the ebb, look twice.',
        'Then look again.',
        '==========',
      ],
      ['page 12, location 180-181', 'page 40'],
    ],
    [
      'one source at the top, the place before each',
      [
        'The Lead Line (M. Oddway)',
        '',
        'Chapter names stand by themselves',
        '',
        'Page 12 | March 3, 2026, 14:05:12',
        silt.quotation,
        '',
        'The ebb',
        '',
        'Page 40 | March 4, 2026, 09:00:00',
        'At the ebb, look twice.',
        'Then look again.',
      ],
      ['Page 12', 'Page 40'],
    ],
    [
      'one source at the top, the place after each',
      [
        'The Lead Line (M. Oddway)',
        '',
        silt.quotation,
        'p. 12, 2026-03-03 14:05:12',
        '',
        'The ebb',
        '',
        'At the ebb, look twice.',
        'Then look again.',
        'p. 40, 2026-03-04 09:00:00',
      ],
      ['p. 12', 'p. 40'],
    ],
    [
      'Markdown with quotations',
      [
        '# The Lead Line (M. Oddway)',
        '## Silt',
        `> ${silt.quotation}`,
        '— page 12, 3 March 2026 14:05:12',
        '',
        '> At the ebb, look twice.',
        '> Then look again.',
        '— page 40, 4 March 2026 09:00:00',
      ],
      ['page 12', 'page 40'],
    ],
    [
      'paragraphs with their lines of place behind them',
      [
        silt.quotation,
        '— The Lead Line (M. Oddway)',
        'page 12',
        '2026-03-03T14:05:12',
        '',
        'At the ebb, look twice.',
        'Then look again.',
        '— The Lead Line (M. Oddway)',
        'page 40',
        '2026-03-04T09:00:00',
      ],
      ['page 12', 'page 40'],
    ],
  ])('are read when they are %s', (_layout, lines, places) => {
    const title = 'The Lead Line (M. Oddway)';
    expect(read(lines.join('\r\n'))).toEqual([
      { ...silt, title, place: places[0], madeAt: day('2026-03-03T14:05:12') },
      { ...ebb, title, place: places[1], madeAt: day('2026-03-04T09:00:00') },
    ]);
  });

  it.each([
    ['Seite 12 | Hinzugefügt am Dienstag, 3. März 2026 14:05:12', 'Seite 12'],
    ['page 12 | Ajouté le mardi 3 mars 2026 14:05:12', 'page 12'],
    ['página 12 | Añadido el martes, 3 de marzo de 2026 14:05:12', 'página 12'],
    ['pagina 12 | Aggiunto in data martedì 3 marzo 2026 14:05:12', 'pagina 12'],
  ])('say where and when in other languages: %s', (line, place) => {
    const [one] = read(`Das Lot\n- ${line}\n\nDer Schlick\n=====`);
    expect(one).toMatchObject({ quotation: 'Der Schlick', title: 'Das Lot', place });
    expect(new Date(one?.madeAt ?? 0).toISOString().slice(0, 10)).toBe('2026-03-03');
  });

  it('have the reader’s own note where it stands', () => {
    const file = readHighlightFile(
      [
        'Lead\n- Highlight on page 3 | 2026-03-03\n\nFirst.',
        'Lead\n- Highlight on page 9 | 2026-03-03\n\nSecond.',
        'Lead\n- Note on page 3 | 2026-03-03\n\nAsk Ines.',
        'Other\n- Note on page 1 | 2026-03-03\n\nAlone.',
        'Lead\n- Bookmark on page 7 | 2026-03-03\n',
      ].join('\n==========\n'),
    );
    expect(file.highlights.map(({ quotation, note }) => [quotation, note])).toEqual([
      ['First.', 'Ask Ines.'],
      ['Second.', ''],
    ]);
    expect(file.faults).toEqual([
      'Other, page 1, 2026-03-03: a note that quotes nothing: Alone.',
      'Lead, page 7: no words stand there.',
    ]);
  });

  it('are entries of a list, too, with the place in brackets', () => {
    expect(read('# Lead\n\n- First of it. (p. 3)\n- Second of it\n  my own word\n- Third (of many)')).toMatchObject([
      { quotation: 'First of it.', place: 'p. 3' },
      { quotation: 'Second of it', note: 'my own word' },
      { quotation: 'Third (of many)', place: '' },
    ]);
  });

  it('take nothing for a place that is part of a sentence', () => {
    expect(read('On page 12 of the log somebody had drawn a boat.\n\nIn 1912 the quay was moved.')).toMatchObject([
      { quotation: 'On page 12 of the log somebody had drawn a boat.', place: '', madeAt: null },
      { quotation: 'In 1912 the quay was moved.', madeAt: null },
    ]);
  });
});
