import { join } from './joining';
import type { Stored } from './kind';

interface Said {
  value: string;
  stamp: string;
}
interface Words extends Stored {
  words: Partial<Record<string, Said>>;
}

/** The later of each word, as the kinds' own merges do it. */
const merge = (a: Words, b: Words): Words => ({
  ...a,
  words: Object.fromEntries(
    [...new Set([...Object.keys(a.words), ...Object.keys(b.words)])].map((word) => {
      const [one, other] = [a, b].map(({ words }) => (Object.hasOwn(words, word) ? words[word] : undefined));
      return [word, (one?.stamp ?? '') >= (other?.stamp ?? '') ? one : other];
    }),
  ),
});
const record = (words: Words['words']) => structuredClone({ id: 'a', words });
const said = (value: string, stamp: string): Said => ({ value, stamp });

it.each<[string, Words['words'] | null, Words['words'], string]>([
  ['is not here', null, { oak: said('yes', '1') }, 'new'],
  ['is here alike', { oak: said('yes', '1') }, { oak: said('yes', '1') }, 'same'],
  // A tag may be called what every object of JavaScript has.
  [
    'is here alike, under a word that objects have',
    { constructor: said('yes', '1') },
    { constructor: said('yes', '1') },
    'same',
  ],
  ['is older', { oak: said('no', '2') }, { oak: said('yes', '1') }, 'newer-here'],
  ['is later', { oak: said('no', '1') }, { oak: said('yes', '2') }, 'newer-there'],
  [
    'has what the other has not, and the other way round',
    { oak: said('no', '1') },
    { larch: said('yes', '1') },
    'both',
  ],
])('a record that %s', (_name, here, there, standing) => {
  expect(join(merge, here ? record(here) : undefined, record(there)).standing).toBe(standing);
});
