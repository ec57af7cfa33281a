import { existsSync } from 'node:fs';
import path from 'node:path';
import { GROUPS, matching } from './entries';

const labels = (written: string) =>
  matching(GROUPS, written).flatMap(({ entries }) => entries.map(({ label }) => label));

describe('looking for something in You', () => {
  it('leaves all of it where nothing is written', () => {
    expect(labels('  ')).toHaveLength(GROUPS.flatMap(({ entries }) => entries).length);
  });

  it.each([
    ['dark', ['How the text looks']],
    ['FONT', ['How the text looks']],
    ['passw', ['Account']],
    ['export', ['Highlights', 'Your library as a file']],
    ['mail addr', ['Save from elsewhere']],
    ['listening', ['Voices and speed', 'Podcast']],
    ['off', ['On this device']],
    ['nowhere', []],
  ])('finds by “%s” what answers to it, by what others call it too', (written, found) => {
    expect(labels(written)).toEqual(found);
  });

  it('says which words of a screen answered, and nothing where its name does', () => {
    expect(matching(GROUPS, 'justified')[0]?.entries[0]?.by).toBe('Justified lines, hyphens');
    expect(matching(GROUPS, 'podcast')[0]?.entries[0]?.by).toBeNull();
  });

  it('leads nowhere that is not', () => {
    const routes = path.join(__dirname, '../../app/(tabs)');
    const missing = GROUPS.flatMap(({ entries }) => entries)
      .map(({ href }) => href)
      .filter((href) => ![`${href}.tsx`, `${href}/_layout.tsx`].some((file) => existsSync(path.join(routes, file))));
    expect(missing).toEqual([]);
  });
});
