import { join } from './joining';

type Record = Parameters<typeof join>[1] & { words: Record<string, { value: string; stamp: string } | undefined> };

/** The later of each word, as the kinds' own merges do it. */
const merge = (a: Record, b: Record): Record => ({
  ...a,
  words: Object.fromEntries(
    [...new Set([...Object.keys(a.words), ...Object.keys(b.words)])].map((word) => {
      const [one, other] = [a, b].map(({ words }) => (Object.hasOwn(words, word) ? words[word] : undefined));
      return [word, (one?.stamp ?? '') >= (other?.stamp ?? '') ? one : other];
    }),
  ),
});
const record = (words: Record['words']) => structuredClone({ id: 'a', words }) as unknown as Record;
const said = (value: string, stamp: string) => ({ value, stamp });

it.each<[string, Record['words'] | null, Record['words'], string]>([
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
