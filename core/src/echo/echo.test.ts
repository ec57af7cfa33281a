import type { Root } from 'hast';
import { termProfile } from '../terms';
import { plainText } from '../text';
import { asPhrases, createEchoIndex, type EchoDensity, echoesOf, excerptsOf, passageOn } from '.';

const TEXTS: Readonly<Record<string, string>> = {
  dredging:
    'The Harbour Board of Skerrow let the dredger in. Dredging stirs silt. The Harbour Board of Skerrow has not answered.',
  oven: 'The bread oven behind the net loft is fired with driftwood. A bread oven cools slowly.',
  stars: 'The night sky over the quay is dark. A dark night sky needs no lamps.',
};
const about = { title: null, language: 'en' };
const indexOf = (texts: Readonly<Record<string, string>>) => {
  const index = createEchoIndex();
  for (const [id, text] of Object.entries(texts)) index.put(id, termProfile(text, null, 'en'));
  return index;
};
const treeOf = (text: string): Root => ({
  type: 'root',
  children: [{ type: 'element', tagName: 'p', properties: {}, children: [{ type: 'text', value: text }] }],
});
const FILLER = ' Nobody had thought of that before then, and it was said to them again.'.repeat(40);
const OPEN = `We wrote to the Harbour Board of Skerrow about a bread oven. The bread oven must stay.${FILLER}`;

interface Asked {
  index?: ReturnType<typeof createEchoIndex>;
  density?: EchoDensity;
  silenced?: readonly string[];
  not?: readonly string[];
}

function echoesIn(text: string, { index = indexOf(TEXTS), density = 'few', silenced = [], not = [] }: Asked = {}) {
  return echoesOf(text, { ...about, words: text.split(/\s+/).length }, index, {
    density,
    silenced: new Set(silenced),
    not: (id) => not.includes(id),
  });
}

describe('echoes', () => {
  it('are names and terms that other items speak of, where they stand first, with those items', () => {
    expect(echoesIn(OPEN).map(({ form, items }) => [form, items])).toEqual([
      ['Harbour Board of Skerrow', ['dredging']],
      ['bread oven', ['oven']],
    ]);
    for (const { start, end, form } of echoesIn(OPEN)) expect(OPEN.slice(start, end)).toBe(form);
  });

  it('are never more than one in 120 words, or one in 60 where more are wanted, and none where none are', () => {
    const short = OPEN.split(' ').slice(0, 70).join(' ');
    expect(echoesIn(short)).toEqual([]);
    expect(echoesIn(short, { density: 'more' })).toHaveLength(1);
    expect(echoesIn(OPEN, { density: 'none' })).toEqual([]);
  });

  it('do not speak of the item itself, of a site that is left out, or of what is silenced', () => {
    expect(echoesIn(OPEN, { not: ['oven'] }).map(({ form }) => form)).toEqual(['Harbour Board of Skerrow']);
    const key = echoesIn(OPEN)[0]?.key ?? '';
    expect(echoesIn(OPEN, { silenced: [key] }).map(({ form }) => form)).toEqual(['bread oven']);
  });

  it('leave out what many items speak of', () => {
    const many = Object.fromEntries(Array.from({ length: 9 }, (_, n) => [`oven${n}`, TEXTS.oven ?? '']));
    expect(echoesIn(OPEN, { index: indexOf({ ...TEXTS, ...many }) }).map(({ form }) => form)).toEqual([
      'Harbour Board of Skerrow',
    ]);
  });

  it('are first of all what another item is about by its title', () => {
    // Room for one only.
    const text = `A bread oven must stay. A net loft must stay.${FILLER}`.split(' ').slice(0, 130).join(' ');
    const underTitles = (titles: Readonly<Record<string, string>>) => {
      const index = createEchoIndex();
      const told = {
        oven: 'A bread oven cools. Bread ovens crack.',
        loft: 'A net loft is dry. Net lofts smell of tar.',
      };
      for (const [id, each] of Object.entries(told)) index.put(id, termProfile(each, titles[id] ?? null, 'en'));
      return echoesIn(text, { index }).map(({ form }) => form);
    };
    expect(underTitles({ oven: 'Bread ovens' })).toEqual(['bread oven']);
    expect(underTitles({ loft: 'Net lofts' })).toEqual(['net loft']);
  });

  it('of a name are names: nobody called Ebbe is an ebb', () => {
    const index = createEchoIndex();
    index.put('tides', termProfile('The ebb runs hard here. An ebb of six hours. Every ebb ends.', null, 'en'));
    const text = `We asked Ebbe about it, and Ebbe knew. ${FILLER}`;
    expect(echoesIn(text, { index })).toEqual([]);
    index.put('people', termProfile('They wrote to Ebbe. Then Ebbe wrote to them.', null, 'en'));
    expect(echoesIn(text, { index }).map(({ form, items }) => [form, items])).toEqual([['Ebbe', ['people']]]);
  });

  it('of a word that is no name are what both texts come back to again and again', () => {
    const text = `Rye is slow. Rye is dark, and rye keeps. ${FILLER}`;
    const often = createEchoIndex();
    often.put('bread', termProfile('They grow rye. Some rye is cut green; most rye is not.', null, 'en'));
    const seldom = createEchoIndex();
    seldom.put('bread', termProfile('They grow rye. Most rye is not cut green.', null, 'en'));
    expect(echoesIn(text, { index: often }).map(({ form }) => form)).toEqual(['Rye']);
    expect(echoesIn(text, { index: seldom })).toEqual([]);
  });

  it('go with the item that they come from, and change with its text', () => {
    const index = indexOf(TEXTS);
    index.put('oven', termProfile('Rye bread wants a sour leaven.', null, 'en'));
    index.remove('dredging');
    expect(echoesIn(OPEN, { index })).toEqual([]);
    expect(index.size).toBe(2);
  });
});

describe('the passage on a term', () => {
  it('is the sentence in which it stands first', () => {
    const text = TEXTS.oven ?? '';
    const plain = plainText(treeOf(text));
    const passage = passageOn('bread oven', plain, about);
    expect(passage?.text.trim()).toBe('The bread oven behind the net loft is fired with driftwood.');
    expect(text.slice(passage?.term.start, passage?.term.end)).toBe('bread oven');
    expect(passageOn('quiet engin', plain, about)).toBeNull();
  });
});

describe('excerpts', () => {
  it('make the same echoes as whole profiles do, where few terms are spoken of', () => {
    const index = createEchoIndex();
    for (const [id, text] of Object.entries(TEXTS))
      index.put(id, asPhrases(excerptsOf(plainText(treeOf(text)), null, 'en'), { title: '', language: 'en' }));
    expect(echoesIn(OPEN, { index })).toEqual(echoesIn(OPEN));
  });

  it('are at most sixteen, with a few words around each, cut at words and never inside the term', () => {
    const names = Array.from({ length: 20 }, (_, n) => `Skipper Anneliese Number${'abcdefghijklmnopqrst'[n]}`);
    const long = names.map(
      (name) => `It was said ${'over and over '.repeat(8)}by ${name} ${'then and there '.repeat(8)}.`,
    );
    const text = long.join(' ');
    const excerpts = excerptsOf(plainText(treeOf(text)), null, 'en');
    expect(excerpts).toHaveLength(16);
    for (const [, , , start, form, around] of excerpts) {
      expect(text.slice(start, start + form.length)).toBe(form);
      expect(around).toContain(form);
      expect(around.length).toBeLessThan(160);
      expect(around).toMatch(/^… (?:over|and|by)\b.* …$/);
    }
  });
});
