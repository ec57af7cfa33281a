import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import type { Root } from 'hast';
import { plainText, sentences } from '../text';
import { knownIn, type Passed } from './known';

const plainOf = (...paragraphs: string[]) =>
  plainText({
    type: 'root',
    children: paragraphs.map((value) => ({
      type: 'element',
      tagName: 'p',
      properties: {},
      children: [{ type: 'text', value }],
    })),
  } satisfies Root);

const passed = (text: string, more: Partial<Passed> = {}): Passed => ({
  id: 'met',
  plain: plainOf(text),
  language: 'en',
  until: Infinity,
  ...more,
});

/** The sentences of a text that are known to somebody who has passed another. */
function knownOf(text: string, met: string, language = 'en'): string[] {
  const plain = plainOf(text);
  return knownIn(plain, language, [passed(met, { language })]).map(({ start, end }) => plain.text.slice(start, end));
}

describe('what is new to a reader', () => {
  const REPORT =
    'The cooperative voted on Tuesday evening to buy the quiet engine from the yard at Little Sound. ' +
    'Forty-one members came to the hall, and three of them voted against it. ' +
    'Wilma Ostrander said that the old engine was not safe in a following sea. ' +
    'The engine costs 38,000 crowns and will be fitted before the spring tides.';

  it.each([
    ['the same sentence', 'Forty-one members came to the hall, and three of them voted against it.'],
    [
      'other small words',
      'On Tuesday evening the cooperative voted to buy that quiet engine from the yard in Little Sound.',
    ],
    ['its parts the other way round', 'Before the spring tides the engine, which costs 38,000 crowns, will be fitted.'],
    [
      'one sentence of two',
      'Three of the forty-one members who came to the hall voted against the quiet engine from the yard at Little Sound.',
    ],
    ['a number in figures', 'Forty-one members came to the hall, and 3 of them voted against it.'],
    [
      'other forms of its words',
      'The cooperative has been voting on a Tuesday evening for buying the quiet engine from the yard of Little Sound.',
    ],
  ])('is not what was met as %s', (_, sentence) => {
    expect(knownOf(sentence, REPORT)).toEqual([sentence]);
  });

  it.each([
    ['another number', 'The engine costs 41,000 crowns and will be fitted before the spring tides.'],
    ['another day', 'The cooperative voted on Friday evening to buy the quiet engine from the yard at Little Sound.'],
    ['another name', 'Teo Ostrander said that the old engine was not safe in a following sea, said Marit.'],
    ['a denial', 'The cooperative voted on Tuesday evening not to buy the quiet engine from the yard at Little Sound.'],
    ['a denial taken away', 'Wilma Ostrander said that the old engine was safe in a following sea.'],
    ['the opposite of a word', 'The engine costs 38,000 crowns and will be fitted after the spring tides.'],
    ['the contrary of a word', 'Wilma Ostrander said that the old engine was not unsafe in a following sea.'],
    [
      'more than half that is new',
      'The engine costs 38,000 crowns, which the parish lends without interest for nine years, as Teo had asked.',
    ],
    ['what it says of the same thing', 'The old engine goes to the school, where pupils take it apart.'],
    ['so few words that they could be of anything', 'They voted.'],
  ])('is what has %s', (_, sentence) => {
    expect(knownOf(sentence, REPORT)).toEqual([]);
  });

  it('is what the same person says of something else', () => {
    const met = 'Halvard Osgood the elder: My father painted the boat.';
    expect(knownOf("Halvard Osgood the elder: That's why we thought that it could be.", met)).toEqual([]);
    const same = 'Halvard Osgood the elder: The boat my father painted.';
    expect(knownOf(same, met)).toEqual([same]);
    expect(knownOf(same.replace('Halvard Osgood', 'Arne Tolland'), met)).toEqual([]);
  });

  it('tells who did it to whom', () => {
    const met = 'In the harbour race the crew of Skerrow beat the crew of Ternholm by two lengths.';
    expect(knownOf('In the harbour race the crew of Ternholm beat the crew of Skerrow by two lengths.', met)).toEqual(
      [],
    );
    expect(knownOf(`${met} It rained.`, met)).toEqual([met]);
  });

  it.each([
    [
      'de',
      'Die Genossenschaft kauft den leisen Motor von der Werft am Kleinen Sund.',
      'Den leisen Motor von der Werft am Kleinen Sund kauft die Genossenschaft.',
      'Die Genossenschaft kauft den leisen Motor nicht von der Werft am Kleinen Sund.',
    ],
    [
      'fr',
      'La coopérative achète le moteur silencieux du chantier avant la grande marée.',
      'Avant la grande marée, la coopérative achète le moteur silencieux du chantier.',
      'La coopérative achète le moteur silencieux du chantier après la grande marée.',
    ],
    [
      'es',
      'La cooperativa compra el motor silencioso del astillero por doce mil coronas.',
      'Por doce mil coronas la cooperativa compra el motor silencioso del astillero.',
      'La cooperativa no compra el motor silencioso del astillero por doce mil coronas.',
    ],
  ])('is told in %s as well', (language, met, same, other) => {
    expect(knownOf(same, met, language)).toEqual([same]);
    expect(knownOf(other, met, language)).toEqual([]);
  });

  it('is all that lies behind the place that was reached, and all in another language', () => {
    const plain = plainOf(REPORT);
    const half = passed(REPORT, { until: REPORT.indexOf('Wilma') });
    expect(knownIn(plain, 'en', [half])).toHaveLength(2);
    expect(knownIn(plain, 'en', [passed(REPORT, { language: 'nl' })])).toEqual([]);
    expect(knownIn(plain, 'en', [])).toEqual([]);
  });

  it('says where it was met', () => {
    const [known] = knownIn(
      plainOf('It rained. Three of them voted against it; forty-one members came to the hall.'),
      'en',
      [passed('Nothing of the kind stands here, only weather.', { id: 'other' }), passed(REPORT)],
    );
    expect(known?.id).toBe('met');
    expect(REPORT.slice(known?.met.start, known?.met.end)).toBe(
      'Forty-one members came to the hall, and three of them voted against it.',
    );
  });
});

describe('the texts of the demo, mixed', () => {
  const folder = path.join(__dirname, '../../../demo/small-web/texts');
  const texts = readdirSync(folder)
    .map((name) => readFileSync(path.join(folder, name), 'utf8'))
    .filter((text) => !/^language:/m.test(text))
    .map((text) => {
      const body = text
        .slice(text.indexOf('\n---\n') + 5)
        // The words alone: elements written by hand are no words that anybody says.
        .replace(/<[^<>]*>/g, ' ')
        .replace(/[*_#>]/g, '')
        .replace(/\s+/g, ' ')
        .trim();
      return (
        sentences(body, 'en')
          .map(({ start, end }) => body.slice(start, end))
          // A table written as one line is no sentence, and links are not taken out.
          .filter((sentence) => sentence.split(' ').length > 6 && !/\]\(|\|/.test(sentence))
      );
    })
    .filter((said) => said.length >= 12);

  it('have no sentence that another of them says', () => {
    const all = texts.map((said, at) => ({ id: String(at), plain: plainOf(...said), language: 'en', until: Infinity }));
    const known = all.flatMap((open) =>
      knownIn(
        open.plain,
        'en',
        all.filter(({ id }) => id !== open.id),
      ),
    );
    expect(texts.length).toBeGreaterThan(30);
    expect(known).toEqual([]);
  });

  it('are known where they were passed and new where they were not, in any order', () => {
    fc.assert(
      fc.property(fc.nat(texts.length - 1), fc.infiniteStream(fc.boolean()), (at, wasPassed) => {
        const said = texts[at]!;
        const met = said.filter(() => wasPassed.next().value === true);
        const open = plainOf(...[...said].reverse());
        const others = texts
          .flatMap((each, n) => (n === at ? [] : [passed(each.join(' '), { id: String(n) })]))
          .slice(0, 6);
        const known = knownIn(open, 'en', [...others, passed(met.join(' '))]).map(({ start, end }) =>
          open.text.slice(start, end),
        );
        const whole = new Set(
          met.flatMap((text) => sentences(text, 'en').map(({ start, end }) => text.slice(start, end))),
        );
        // Not one that was not passed, but for what says so in nearly the same words; and nearly all that were: not those
        // that say too little.
        const words = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
        const heard = new Set(words(met.join(' ')));
        const isNew = (sentence: string) =>
          words(sentence).filter((word) => !heard.has(word)).length > words(sentence).length / 12;
        expect(known.filter((sentence) => !whole.has(sentence) && isNew(sentence))).toEqual([]);
        expect(known.length).toBeGreaterThanOrEqual(Math.floor(whole.size * 0.85));
      }),
      { numRuns: 40 },
    );
  });
});
