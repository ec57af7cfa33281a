import { termProfile } from '.';
import { stemmerOf } from './stems';

const formsOf = (text: string, title: string | null = null, language = 'en') =>
  new Map(termProfile(text, title, language).terms.map(([, count, form]) => [form, count]));

describe('stems', () => {
  /**
   * Vocabulary and stems as Snowball publishes them (snowballstem.org, data/LANG/voc.txt and output.txt, BSD): the
   * rows on which its own pages show what each algorithm does.
   */
  it.each([
    ['en', 'consistency', 'consist'],
    ['en', 'consigned', 'consign'],
    ['en', 'knightly', 'knight'],
    ['en', 'knackeries', 'knackeri'],
    ['de', 'aufeinanderfolge', 'aufeinanderfolg'],
    ['de', 'kategorien', 'kategori'],
    ['fr', 'continuellement', 'continuel'],
    ['fr', 'majestueusement', 'majestu'],
    ['es', 'chicharrones', 'chicharron'],
    ['es', 'torneado', 'torn'],
  ])('%s: %s → %s', (language, word, stem) => {
    expect(stemmerOf(language)(word)).toBe(stem);
  });

  it('are the words themselves where no algorithm is known', () => {
    expect(stemmerOf('xx')('whatever')).toBe('whatever');
  });
});

describe('the profile of a text', () => {
  it('counts words by stem and shows the commonest form', () => {
    const forms = formsOf('The meadow is near the meadows. A meadow.');
    expect(forms.get('meadow')).toBe(3);
    expect([...forms.keys()]).not.toContain('the');
  });

  it('knows neighbours as phrases, not across a stop word or a full stop', () => {
    const forms = formsOf('Bread oven. Oven and bread. The bread oven.');
    expect(forms.get('bread oven')).toBe(2);
    expect(forms.has('oven bread')).toBe(false);
  });

  it('gives the title more weight, and keeps its terms', () => {
    const profile = termProfile('An engine hums.', 'Quiet engines', 'en');
    expect(profile.title).toEqual(['engin']);
    expect(new Map(profile.terms.map(([term, count]) => [term, count])).get('engin')).toBe(4);
  });

  it('finds words where no spaces part them', () => {
    expect(formsOf('潮の音を聞く。潮が満ちる。', null, 'ja').get('潮')).toBe(2);
  });

  it('is empty for a text that says nothing', () => {
    expect(termProfile('', null, null)).toEqual({
      length: 0,
      title: [],
      terms: [],
      phrases: [],
      parts: [],
      sketch: [],
    });
    expect(termProfile('1868 412 … — !', '', 'not a tag').terms).toEqual([]);
  });

  it('stays small however long the text', () => {
    const text = Array.from({ length: 5000 }, (_, n) => `word${n.toString(36)}x`).join(' ');
    expect(termProfile(text, null, 'en').terms.length).toBeLessThanOrEqual(400);
  });
});
