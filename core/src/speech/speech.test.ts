import type { Element, ElementContent, Root, RootContent } from 'hast';
import { toRate, USUAL_SPEECH, voiceFor } from '../listening';
import { plainText, wordStarts } from '../text';
import { paragraphFrom, titleUtterance, utteranceAt, utterances } from '.';

const element = (tagName: string, ...children: (string | ElementContent | Element['properties'])[]): Element => {
  const made: Element = { type: 'element', tagName, properties: {}, children: [] };
  for (const child of children) {
    if (typeof child === 'string') made.children.push({ type: 'text', value: child });
    else if ('type' in child && typeof child.type === 'string' && 'tagName' in child)
      made.children.push(child as ElementContent);
    else made.properties = child as Element['properties'];
  }
  return made;
};
const root = (...children: RootContent[]): Root => ({ type: 'root', children });
const table = (...rows: [cell: 'th' | 'td', ...values: string[]][]) =>
  element(
    'table',
    element('caption', 'Heights'),
    element('tbody', ...rows.map(([cell, ...values]) => element('tr', ...values.map((value) => element(cell, value))))),
  );
const texts = (tree: Root, choices = USUAL_SPEECH, language = 'en') =>
  utterances(tree, language, choices).map(({ said }) => said().text);

const tree = root(
  element('h2', 'Tides'),
  element('p', 'High at ', element('b', 'noon'), '. Low at six.'),
  element('pre', element('code', 'let x = 1;')),
  table(['th', 'Day', 'Height'], ['td', 'Monday', '3.2 m']),
  element('p', '* * *'),
  element('p', 'A line', element('br'), 'broken'),
  element('figure', element('figcaption', 'The pier')),
);

describe('what a voice reads', () => {
  const spoken = utterances(tree, 'en');

  it('is its sentences in order; what is no running text is said to be what it is, ornament is not said', () => {
    expect(spoken.map(({ said }) => said().text)).toEqual([
      'Heading: Tides.',
      'High at noon.',
      'Low at six.',
      'Code, left out.',
      'Table: Heights. two columns, one row. Day, Height.',
      'A line',
      'broken',
      'Picture: The pier.',
    ]);
  });

  it('reads a table by its rows, or not at all, as the reader chose', () => {
    expect(texts(tree, { ...USUAL_SPEECH, tables: 'rows' })).toContain('Day: Monday; Height: three point two metres.');
    expect(texts(tree, { ...USUAL_SPEECH, tables: 'nothing' }).join(' ')).not.toMatch(/Table|Monday/);
  });

  it('says a heading without the word, as the reader chose', () => {
    expect(texts(tree, { ...USUAL_SPEECH, headings: false })[0]).toBe('Tides.');
  });

  it('numbers the entries of a numbered list, from where it begins, once each', () => {
    const list = element(
      'ol',
      { start: 4 },
      element('li', 'Caulk. Then wait.'),
      element('li', element('p', 'Paint'), element('p', 'Twice')),
    );
    expect(texts(root(list, element('ul', element('li', 'Tar'))))).toEqual([
      'four: Caulk.',
      'Then wait.',
      'five: Paint',
      'Twice',
      'Tar',
    ]);
  });

  it('pauses less behind an entry of a list than behind a paragraph, and hardly where only the voice changes', () => {
    const list = root(element('ul', element('li', 'Tar.')), element('p', 'Then wait. Then paint.'));
    const [entry, sentence, paragraph] = utterances(list, 'en').map(({ pauseMs }) => pauseMs);
    expect(entry).toBeGreaterThan(sentence ?? 0);
    expect(entry).toBeLessThan(paragraph ?? 0);
    const foreign = {
      type: 'element' as const,
      tagName: 'i',
      properties: { lang: 'fr' },
      children: [{ type: 'text' as const, value: 'la marée basse' }],
    };
    const mixed = element('p', 'They call it ', foreign, ' there. So do we.');
    const [before] = utterances(root(mixed), 'en').map(({ pauseMs }) => pauseMs);
    expect(before).toBeLessThan((sentence ?? 0) / 4);
  });

  it('pauses longer the more is closed, and around a quotation', () => {
    const [heading, sentence, paragraph] = spoken.map(({ pauseMs }) => pauseMs);
    expect(sentence).toBeLessThan(paragraph ?? 0);
    expect(paragraph).toBeLessThan(heading ?? 0);
    const quoted = root(
      element('p', 'He wrote:'),
      element('blockquote', element('p', 'Bail first.'), element('p', 'Then row.')),
      element('p', 'So we did.'),
    );
    expect(utterances(quoted, 'en').map(({ leadMs }) => leadMs > 0)).toEqual([false, true, false, true]);
  });

  it('knows where a paragraph begins, for going from one to the next and back', () => {
    expect(spoken.map(({ begins }) => begins)).toEqual([true, true, false, true, true, true, false, true]);
    expect([paragraphFrom(spoken, 1, 1), paragraphFrom(spoken, 2, -1), paragraphFrom(spoken, 1, -1)]).toEqual([
      3, 1, 0,
    ]);
    expect([paragraphFrom(spoken, 0, -1), paragraphFrom(spoken, 7, 1)]).toEqual([0, 7]);
  });

  it('is found by a place in it, or by one before it', () => {
    const [heading, first] = spoken;
    expect(utteranceAt(spoken, 0)).toBe(heading);
    expect(utteranceAt(spoken, (heading?.end ?? 0) + 1)).toBe(first);
    expect(utteranceAt(spoken, (first?.start ?? 0) + 3)).toBe(first);
    expect(utteranceAt(spoken, 99_999)).toBe(spoken.at(-1));
    expect(utteranceAt([], 3)).toBeUndefined();
  });

  it('has every word of the text in one utterance, whatever is chosen of tables', () => {
    for (const tables of ['summary', 'rows'] as const) {
      const parts = utterances(tree, 'en', { ...USUAL_SPEECH, tables });
      for (const start of wordStarts(plainText(tree).text, 'en')) {
        // The row of asterisks has no words in it.
        const holding = parts.filter((each) => each.start <= start && start < each.end);
        expect(holding).toHaveLength(1);
      }
    }
  });
});

describe('footnotes', () => {
  const mark = (id: string) => element('sup', element('a', { href: `#${id}` }, '1'));
  const noted = root(
    element('p', 'The ebb ran hard.', mark('in-1'), ' Nobody', mark('in-1'), ' rowed.'),
    element(
      'ol',
      element('li', { id: 'in-1' }, 'Four knots. ', element('a', { href: '#in-2' }, '↩')),
      element('li', 'A list entry.'),
    ),
  );

  it('are left out, and so are their marks', () => {
    expect(texts(noted)).toEqual(['The ebb ran hard.', 'Nobody rowed.', 'two: A list entry.']);
  });

  it('are read where the reader wants them', () => {
    expect(texts(noted, { ...USUAL_SPEECH, footnotes: true })).toContain('one: Four knots.');
  });
});

describe('other languages in a text', () => {
  const german =
    'Der Wind hat die ganze Nacht nicht nachgelassen und die Boote sind nicht aus dem Hafen gekommen, weil die Flut zu stark war und niemand rudern wollte, auch nicht die alten Fischer.';

  it('are told by what the page says, or where a block plainly is in one', () => {
    const mixed = root(
      element('p', 'They said:'),
      element('blockquote', element('p', { lang: 'fr' }, 'Le 3 mai.')),
      element('p', german),
      element('p', 'And that was all.'),
    );
    expect(utterances(mixed, 'en').map(({ language, said }) => [language, said().text.slice(0, 12)])).toEqual([
      [null, 'They said:'],
      ['fr', 'Le trois mai'],
      ['de', 'Der Wind hat'],
      [null, 'And that was'],
    ]);
  });
});

it('gives a phrase in another language to the voice of that language, and a word alone to the text’s own', () => {
  const tree = root(
    element(
      'p',
      'He said ',
      element('em', { lang: 'fr' }, 'mon cher ami'),
      ' and left by the ',
      element('em', { lang: 'de' }, 'Hafen'),
      '.',
    ),
  );
  expect(utterances(tree, 'en').map(({ said, language }) => [said().text, language])).toEqual([
    ['He said ', null],
    ['mon cher ami', 'fr'],
    [' and left by the Hafen.', null],
  ]);
});

it('says before an article what it is', () => {
  expect(titleUtterance('What the eelgrass knows', 'Skerrow Daily', '8 min', 'en').said().text).toBe(
    'What the eelgrass knows. Skerrow Daily. eight minutes.',
  );
});

describe('choosing a voice', () => {
  it('takes the same region, then the same language, or none', () => {
    expect(voiceFor('en-GB', ['en-US', 'en_GB', 'de-DE'])).toBe(1);
    expect(voiceFor('en-AU', ['de-DE', 'en-US'])).toBe(1);
    expect(voiceFor(null, ['fr', 'en'])).toBe(1);
    expect(voiceFor('ja', ['en', 'de'])).toBe(-1);
  });

  it('keeps a rate in its range and on its steps', () => {
    expect([0.1, 0.6, 0.7, 1.04, 1.25, 2.96, 9].map(toRate)).toEqual([0.6, 0.6, 0.7, 1, 1.3, 3, 3]);
  });
});
