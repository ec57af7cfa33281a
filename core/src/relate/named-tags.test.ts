import { termProfile } from '../terms';
import { createRelatedIndex, namedTags } from '.';

describe('the tags that a text speaks of', () => {
  const index = createRelatedIndex();
  const text =
    'The boat repairs took all winter. Boat repair is slow work, and the repairs of a boat want dry larch. Larch is dear.';
  index.put('refit', termProfile(text, 'The winter refit', 'en'));
  const named = (tags: readonly string[]) => namedTags(index.subjectsOf('refit'), tags, 'en');

  it('are found whatever their inflection or case, by the last part of a nested one', () => {
    expect(named(['Larch', 'work/Boat-Repairs', 'winters'])).toEqual(['Larch', 'work/Boat-Repairs', 'winters']);
  });

  it('are not those that it only mentions in other words, or not at all', () => {
    expect(named(['ferry', 'boats/ferry', 'larches/oak', ''])).toEqual([]);
    expect(namedTags(index.subjectsOf('nobody'), ['larch'], 'en')).toEqual([]);
  });
});
