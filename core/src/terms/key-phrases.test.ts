import fc from 'fast-check';
import { keyPhrases } from '.';

const phrasesOf = (text: string, title: string | null = null, language: string | null = 'en') =>
  keyPhrases(text, { title, language });
const formsOf = (...words: Parameters<typeof phrasesOf>) => phrasesOf(...words).map(({ form }) => form);

describe('key phrases', () => {
  /**
   * The worked example of Rose, Engel, Cramer, Cowley 2010 (RAKE), first sentences of its abstract: of the terms that
   * their method finds in it, those of two to four words.
   */
  it('finds the terms of the published example', () => {
    const text =
      'Compatibility of systems of linear constraints over the set of natural numbers. Criteria of compatibility of a system of linear Diophantine equations, strict inequations, and nonstrict inequations are considered. Upper bounds for components of a minimal set of solutions and algorithms of construction of minimal generating sets of solutions for all types of systems are given. These criteria and the corresponding algorithms for constructing a minimal supporting set of solutions can be used in solving all the considered types of systems and systems of mixed types.';
    const forms = formsOf(text).map((form) => form.toLowerCase());
    for (const term of [
      'linear diophantine equations',
      'linear constraints',
      'natural numbers',
      'nonstrict inequations',
    ])
      expect(forms).toContain(term);
  });

  it('takes no term across a stop word or a full stop, and none with more than four words', () => {
    const forms = formsOf('Bread oven. Rye of Skerrow, and small quiet blue wooden boats drift.');
    expect(forms).not.toContain('oven Rye');
    expect(forms.some((form) => form.split(' ').length > 4)).toBe(false);
  });

  it('folds inflections, and shows the form that is written most often', () => {
    const [first] = phrasesOf('Diesel engines hum. A diesel engine starts. Diesel engines wear.');
    expect(first).toMatchObject({ key: 'diesel engin', form: 'Diesel engines', count: 3 });
  });

  it('takes capitals inside a sentence for a name, with a small joint in it', () => {
    const found = phrasesOf(
      'They asked the Harbour Board of Skerrow twice. Nobody on the Harbour Board of Skerrow came.',
    );
    expect(found[0]).toMatchObject({ form: 'Harbour Board of Skerrow', isName: true, count: 2 });
  });

  it('takes no capital for a name where a sentence begins, nor in a language that gives one to every noun', () => {
    expect(phrasesOf('Dredging tears. Dredging stirs.').find(({ form }) => form === 'Dredging')?.isName).toBe(false);
    expect(phrasesOf('Wir sahen im Hafen das Boot.', null, 'de').some(({ isName }) => isName)).toBe(false);
  });

  it('makes less of what only stands inside a longer term', () => {
    const forms = formsOf('The bread oven smokes. A bread oven cools. Her bread oven is old.');
    expect(forms[0]).toBe('bread oven');
    expect(forms).not.toContain('bread');
  });

  it('makes more of what a heading, a link or the title says', () => {
    const text = 'Silt settles. Larch dries.';
    const of = (more: object) => keyPhrases(text, { title: null, language: 'en', ...more });
    const larch = (found: ReturnType<typeof of>) => found.find(({ key }) => key.includes('larch'))?.salience ?? 0;
    const range = { start: 14, end: 26 };
    expect(larch(of({ headings: [range] }))).toBeGreaterThan(larch(of({})));
    expect(larch(of({ pointedOut: [range] }))).toBeGreaterThan(larch(of({})));
    expect(larch(of({ title: 'Larch dries' }))).toBeGreaterThan(larch(of({})));
  });

  it.each([
    ['fr', 'La coopérative de pêche vend. Une coopérative de pêche achète.', 'coopérative'],
    ['es', 'El motor eléctrico calla. Un motor eléctrico dura.', 'motor eléctrico'],
    ['ja', '潮の音を聞く。潮が満ちる。', '潮'],
  ])('knows %s', (language, text, form) => {
    expect(formsOf(text, null, language)).toContain(form);
  });

  it('says where each stands first, whatever the text', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('Ferry', 'the', 'old oak', '3', '—', '潮', '.', '\n\n', 'Îles d’Or')),
        (words) => {
          const text = words.join(' ');
          const found = phrasesOf(text);
          expect(found.length).toBeLessThanOrEqual(60);
          for (const { first, form, salience } of found) {
            expect(salience).toBeGreaterThan(0);
            expect(text.slice(first.start, first.end).replace(/\s+/gu, ' ').toLowerCase()).toContain(
              form.split(' ')[0]?.toLowerCase() ?? '',
            );
          }
        },
      ),
    );
  });

  it('are no days in the plural, no units, no short forms and no pronouns', () => {
    const text =
      'On Saturdays nobody bakes. Bake at 230 °C, then at 190 °C. I’d have asked; we’ve sixty loaves. On Saturdays nobody asked. Vitamin C keeps.';
    const keys = keyPhrases(text, { title: null, language: 'en' }).map(({ form }) => form.toLowerCase());
    for (const empty of ['saturdays', 'saturday', 'nobody', 'c', 'i’d', 'we’ve', 'sixty'])
      expect(keys).not.toContain(empty);
    // A letter can be part of a name all the same.
    expect(keys).toContain('vitamin c');
  });
});
