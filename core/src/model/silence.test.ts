import { Silenced, silencedWords, silenceName } from './silence';

it('what is silenced has one name on all devices, whatever words it was seen in, and no two have the same', () => {
  const all: Silenced[] = [
    { kind: 'term', key: 'old engin', form: 'old engine' },
    { kind: 'term', key: 'x.example', form: 'x.example' },
    { kind: 'site', host: 'x.example' },
    { kind: 'first-steps' },
  ];
  expect(new Set(all.map(silenceName)).size).toBe(all.length);
  expect(silenceName({ kind: 'term', key: 'old engin', form: 'Old Engines' })).toBe(silenceName(all[0]!));
  expect(all.map(silencedWords)).toEqual(['old engine', 'x.example', 'x.example', null]);
  expect(Silenced.safeParse({ kind: 'last-steps' }).success).toBe(false);
});
