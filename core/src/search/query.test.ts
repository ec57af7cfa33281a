import fc from 'fast-check';
import { readQuery } from '.';

const NOW = Date.UTC(2026, 10, 24, 9);
const read = (written: string, typing = false) => readQuery(written, { now: NOW, zoneMinutes: 60, typing });
const utc = (...parts: [number, number, number?]) => Date.UTC(...parts) - 3_600_000;

describe('a query', () => {
  it('is words, phrases, what is not wanted, and beginnings', () => {
    expect(read('eelgrass "brown water" -dredging bar*').words).toEqual([
      { text: 'eelgrass', prefix: false, not: false, strict: false },
      { text: 'brown water', prefix: false, not: false, strict: true },
      { text: 'dredging', prefix: false, not: true, strict: false },
      { text: 'bar', prefix: true, not: false, strict: true },
    ]);
  });

  it('takes the last word for a beginning while it is typed', () => {
    const prefixes = (written: string) => read(written, true).words.map(({ prefix }) => prefix);
    expect(prefixes('brown wat')).toEqual([false, true]);
    expect(prefixes('brown wat ')).toEqual([false, false]);
    expect(prefixes('brown "wat')).toEqual([false, false]);
    expect(prefixes('b')).toEqual([false]);
    expect(prefixes('brown -wat')).toEqual([false, false]);
    expect(prefixes('brown tag:wat')).toEqual([false]);
  });

  it.each([
    ['tag:Tides/Local', { kind: 'tag', value: 'tides/local', not: false }],
    ['-tag:"old boats"', { kind: 'tag', value: 'old boats', not: true }],
    ['SITE:slipway', { kind: 'site', value: 'slipway', not: false }],
    ['by:“Ann Lee”', { kind: 'by', value: 'ann lee', not: false }],
    ['lang:de', { kind: 'lang', value: 'de', not: false }],
    ['stage:letgo', { kind: 'stage', value: 'let-go', not: false }],
    ['is:unread', { kind: 'is', value: 'unread', not: false }],
    ['minutes:<10', { kind: 'minutes', from: 0, to: 10, paces: {}, not: false }],
    ['minutes:>20', { kind: 'minutes', from: 20, to: Infinity, paces: {}, not: false }],
    ['minutes:5..15', { kind: 'minutes', from: 5, to: 15, paces: {}, not: false }],
    ['saved:2026', { kind: 'saved', from: utc(2026, 0), before: utc(2027, 0), not: false }],
    ['saved:2026-03', { kind: 'saved', from: utc(2026, 2), before: utc(2026, 3), not: false }],
    ['saved:2026-03..', { kind: 'saved', from: utc(2026, 2), before: null, not: false }],
    ['saved:..2026-03-05', { kind: 'saved', from: null, before: utc(2026, 2, 6), not: false }],
    ['saved:2025-12..2026-01', { kind: 'saved', from: utc(2025, 11), before: utc(2026, 1), not: false }],
    ['colour:dark-blue', { kind: 'colour', wanted: { name: { term: 'blue', shade: 'dark' } }, not: false }],
    ['color:"light green"', { kind: 'colour', wanted: { name: { term: 'green', shade: 'light' } }, not: false }],
    ['kind:line-drawing', { kind: 'kind', value: 'line-drawing', not: false }],
    ['-kind:"page of text"', { kind: 'kind', value: 'page-of-text', not: true }],
    ['kind:picture', { kind: 'kind', value: 'picture', not: false }],
    ['near:58.981,-2.96', { kind: 'near', around: { latitude: 58.981, longitude: -2.96, metres: 1000 }, not: false }],
    [
      '-near:58.981,-2.96,5km',
      { kind: 'near', around: { latitude: 58.981, longitude: -2.96, metres: 5000 }, not: true },
    ],
    ['saved:today', { kind: 'saved', from: utc(2026, 10, 24), before: utc(2026, 10, 25), not: false }],
    ['saved:7d', { kind: 'saved', from: utc(2026, 10, 18), before: null, not: false }],
  ])('%s is a filter', (written, filter) => {
    const query = read(written);
    expect(query.filters).toEqual([filter]);
    expect(query.words).toEqual([]);
    expect(query.faults).toEqual([]);
  });

  it.each([
    'is:blue',
    'stage:elsewhere',
    'saved:soon',
    'saved:2026-13',
    'minutes:long',
    'minutes:..',
    'tag:',
    'colour:loud',
    'kind:blurry',
    'near:quay',
  ])('says what is wrong with %s and goes on', (written) => {
    const query = read(`eelgrass ${written}`);
    expect(query.faults).toHaveLength(1);
    expect(query.filters).toEqual([]);
    expect(query.words.map(({ text }) => text)).toEqual(['eelgrass']);
  });

  it('takes an address, or a word before a colon that is no filter, for words', () => {
    expect(read('https://slipway.example/larch note:this').words.map(({ text }) => text)).toEqual([
      'https://slipway.example/larch',
      'note:this',
    ]);
  });

  it('never fails, whatever is written', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.boolean(), (written, typing) => {
        const query = read(written, typing);
        expect(query.words.length).toBeLessThanOrEqual(32);
        for (const { text } of query.words) expect(text).toMatch(/[\p{L}\p{N}]/u);
      }),
    );
  });
});
