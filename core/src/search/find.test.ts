import fc from 'fast-check';
import type { Scope } from '../model';
import { createSearchIndex, fieldTerms, find, type ItemFacts, nearestTerms, readQuery, tagCounts } from '.';
import { countOfBits, distanceWithin, lettersOf, withOtherStart } from './spelling';

const NOW = Date.UTC(2026, 10, 24);
const DAY = 86_400_000;

interface Entry extends Partial<ItemFacts> {
  title?: string;
  body?: string;
  note?: string;
}

function library(entries: Readonly<Record<string, Entry>>) {
  const index = createSearchIndex();
  const facts = new Map<string, ItemFacts>();
  const put = (id: string, { title = '', body = '', note = '', ...known }: Entry) => {
    const of: ItemFacts = {
      id,
      stage: 'queue',
      savedAt: NOW,
      minutes: 5,
      furthest: 0,
      isFinished: false,
      language: 'en',
      site: 'slipway.example the slipway',
      authors: 'ann lee',
      tags: [],
      noted: note !== '',
      verdict: 'whole',
      gone: false,
      picture: null,
      place: null,
      ...known,
    };
    facts.set(id, of);
    const item = { title, source: of.site, tags: of.tags.join(' '), note, language: of.language };
    index.put(id, fieldTerms(item, body));
  };
  for (const [id, entry] of Object.entries(entries)) put(id, entry);
  const ask = (
    written: string,
    { scope = 'all', typing = false, paces }: { scope?: Scope; typing?: boolean; paces?: Record<string, number> } = {},
  ) =>
    find(
      readQuery(written, { now: NOW, zoneMinutes: 0, typing, ...(paces ? { paces } : {}) }),
      scope,
      index,
      facts,
      NOW,
    );
  const ids = async (written: string, how?: Parameters<typeof ask>[1]) =>
    (await ask(written, how)).hits.map(({ id }) => id);
  return { index, facts, put, ask, ids };
}

const ARTICLES = {
  grass: { title: 'What the eelgrass knows', body: 'Brown water came after the dredging of the harbour.' },
  boats: {
    title: 'Larch or oak',
    body: 'A hull of larch. Water runs brown from the oak.',
    note: 'ask the yard',
  },
  german: { title: 'Die Fähre im Nebel', body: 'Die Fähren fahren durch den Nebel.', language: 'de' },
  japanese: { title: '潮の音', body: '海の音を聞く。', language: 'ja' },
};

describe('pictures', () => {
  const colour = (name: string, hex: string) => ({ name, hex, share: 0.4 });
  const { ids } = library({
    bird: {
      title: 'Wheatear',
      picture: {
        kind: 'drawing',
        isGrey: false,
        colours: [colour('orange', '#d9a86c'), colour('dark blue', '#22307a')],
      },
    },
    tern: { title: 'Tern', picture: { kind: 'line-drawing', isGrey: true, colours: [colour('white', '#ffffff')] } },
    page: { title: 'Minutes', body: 'fathoms of manila', picture: { kind: null, isGrey: false, colours: [] } },
    text: { title: 'Wheatear and tern' },
  });
  it.each([
    ['kind:picture', ['bird', 'page', 'tern']],
    ['kind:drawing', ['bird']],
    ['kind:line-drawing', ['tern']],
    ['kind:black-and-white', ['tern']],
    ['-kind:picture', ['text']],
    ['colour:blue', ['bird']],
    ['colour:light-blue', []],
    ['colour:navy', ['bird']],
    ['wheatear kind:picture', ['bird']],
    ['manila kind:picture', ['page']],
  ])('are found by %s', async (written, wanted) => expect((await ids(written)).sort()).toEqual(wanted));
});

describe('where something was saved', () => {
  const { ids } = library({
    quay: { title: 'Notice', place: { latitude: 58.981, longitude: -2.96, within: 20 } },
    town: { title: 'Poster', place: { latitude: 58.95, longitude: -2.96, within: 20 } },
    nowhere: { title: 'Leaflet' },
  });
  it.each([
    ['near:58.9811,-2.9601', ['quay']],
    ['near:58.9811,-2.9601,10km', ['quay', 'town']],
    ['-near:58.981,-2.96', ['nowhere', 'town']],
    ['poster near:58.981,-2.96', []],
  ])('is found by %s', async (written, wanted) => expect((await ids(written)).sort()).toEqual(wanted));
});

describe('finding', () => {
  const { ids, ask } = library(ARTICLES);

  it.each([
    ['a word', 'eelgrass', ['grass']],
    ['another form of it', 'dredged', ['grass']],
    ['all of several words', 'water brown', ['boats', 'grass']],
    ['a phrase as it stands', '"brown water"', ['grass']],
    ['a phrase over a full stop', '"larch water"', ['boats']],
    ['no word of a phrase alone', '"water brown harbour"', []],
    ['what has not a word', 'water -larch', ['grass']],
    ['what has not a phrase', 'water -"brown water"', ['boats']],
    ['a beginning', 'dred*', ['grass']],
    ['a word without its diacritics', 'fahre', ['german']],
    ['a form by the stem of its own language', 'nebels', ['german']],
    ['a part of a run without spaces', '海の音', ['japanese']],
    ['one character, wherever it stands', '音', ['japanese']],
    ['the site and the authors', 'slipway', ['grass', 'boats', 'german', 'japanese']],
    ['the reader’s own words', 'yard', ['boats']],
    ['nothing for a lone sign', '—', ['boats', 'german', 'grass', 'japanese']],
    ['nothing that is not there', 'zeppelin', []],
  ])('gives for %s (%s) %j', async (_, written, wanted) => {
    expect((await ids(written)).sort()).toEqual([...wanted].sort());
  });

  it('keeps the reader’s words and other people’s apart', async () => {
    expect(await ids('yard', { scope: 'articles' })).toEqual([]);
    expect(await ids('yard', { scope: 'writing' })).toEqual(['boats']);
    expect(await ids('larch', { scope: 'writing' })).toEqual([]);
    expect(await ids('"ask the yard"', { scope: 'writing' })).toEqual(['boats']);
  });

  it('finds what is being typed, at every letter from the second on', async () => {
    for (let length = 2; length <= 'dredging'.length; length++)
      expect(await ids('dredging'.slice(0, length), { typing: true })).toContain('grass');
  });

  it('reads a word that nothing has as one that is spelled nearly so, and says it', async () => {
    const found = await ask('eelgras dregding');
    expect(found.by).toBe('near');
    expect(found.hits.map(({ id }) => id)).toEqual(['grass']);
  });

  it.each(['farch', 'arch', 'blarch', 'alrch'])(
    'reads %s as larch, although its first letter is wrong',
    async (written) => {
      const found = await ask(`${written} oak`);
      expect([found.by, found.hits.map(({ id }) => id)]).toEqual(['near', ['boats']]);
    },
  );

  it('gives what has some of it when nothing has all, best first', async () => {
    const found = await ask('larch oak dredging');
    expect(found.by).toBe('some');
    expect(found.hits.map(({ id }) => id)).toEqual(['boats', 'grass']);
  });

  it('gives behind what has all words the best of what has some, and never what lacks a phrase or a beginning', async () => {
    const found = await ask('brown larch');
    expect([found.hits, found.also].map((each) => each.map(({ id }) => id))).toEqual([['boats'], ['grass']]);
    for (const written of ['"water runs" harbour', 'lar* harbour']) {
      const strict = await ask(written);
      expect([...strict.hits, ...strict.also].map(({ id }) => id)).toEqual(['boats']);
    }
    expect((await ask('brown larch -dredging')).also).toEqual([]);
  });

  it('finds a thing the moment that it is put in, and no more when it is taken out', async () => {
    const { put, index, ids: now } = library(ARTICLES);
    put('new', { title: 'A zeppelin over Skerrow' });
    expect(await now('zeppelin')).toEqual(['new']);
    put('new', { title: 'A kite over Skerrow' });
    expect(await now('zeppelin')).toEqual([]);
    expect(await now('kite')).toEqual(['new']);
    index.remove('new');
    expect(await now('kite')).toEqual([]);
  });

  it('sets a word of the title above one of the text, and of equals what was saved last', async () => {
    const { ids: ranked } = library({
      text: { title: 'On water', body: 'A tide is a tide.' },
      title: { title: 'The tide', body: 'A way of water.' },
      old: { title: 'On moons', body: 'One moon here.', savedAt: NOW - 400 * DAY },
      new: { title: 'On moons', body: 'One moon here.', savedAt: NOW - DAY },
    });
    expect(await ranked('tide')).toEqual(['title', 'text']);
    expect(await ranked('moon')).toEqual(['new', 'old']);
  });
});

describe('filters', () => {
  const { ids } = library({
    a: { title: 'Tide', tags: ['tides/local', 'sea'], minutes: 4, savedAt: NOW - DAY, noted: true },
    b: { title: 'Tide', stage: 'finished', isFinished: true, furthest: 1, minutes: 12, language: 'de-ch' },
    c: { title: 'Tide', stage: 'let-go', tags: ['tides'] },
    d: { title: 'Moon', furthest: 0.4, minutes: null, verdict: 'partial', authors: 'bo jensen', gone: true },
    e: {
      title: 'Boat',
      stage: 'kept',
      isFinished: true,
      furthest: 1,
      tags: ['tidesman'],
      site: 'yard.example',
    },
  });

  it.each([
    ['tag:tides', ['a']],
    ['tag:tides/local', ['a']],
    ['tag:tide', []],
    ['-tag:tides', ['b', 'd', 'e']],
    ['tag:tides tag:sea', ['a']],
    ['tide', ['a', 'b']],
    ['tide stage:let-go', ['c']],
    ['stage:finished', ['b', 'e']],
    ['is:unread', ['a']],
    ['is:reading', ['d']],
    ['is:tagged', ['a', 'e']],
    ['is:partial', ['d']],
    ['is:gone', ['d']],
    ['is:noted', ['a']],
    ['minutes:<10', ['a', 'e']],
    ['minutes:12', ['b']],
    ['saved:..2026-11-23', ['a']],
    ['lang:de', ['b']],
    ['by:jensen', ['d']],
    ['site:YARD.example', ['e']],
  ])('%s leaves %j', async (written, wanted) => {
    expect((await ids(written)).sort()).toEqual(wanted);
  });

  it('minutes are those of this reader, in each language', async () => {
    expect((await ids('minutes:<10', { paces: { de: 0.5 } })).sort()).toEqual(['a', 'b', 'e']);
    expect(await ids('minutes:>11', { paces: { de: 0.5 } })).toEqual([]);
    expect((await ids('minutes:>11', { paces: { en: 3 } })).sort()).toEqual(['a', 'b', 'e']);
    expect(await ids('minutes:12', { paces: { fr: 3 } })).toEqual(['b']);
  });

  it('count tags among what was found, parents with what nests under them', () => {
    const { facts } = library({
      a: { tags: ['tides/local', 'tides/far', 'sea'] },
      b: { tags: ['tides'] },
      c: { tags: ['sea'] },
      d: { tags: ['sea/charts'] },
    });
    expect(tagCounts([...facts.values()])).toEqual([
      { tag: 'sea', count: 3 },
      { tag: 'tides', count: 2 },
      { tag: 'sea/charts', count: 1 },
      { tag: 'tides/far', count: 1 },
      { tag: 'tides/local', count: 1 },
    ]);
  });
});

describe('spelling', () => {
  it.each([
    ['kitten', 'sitting', 3],
    ['ca', 'abc', 3],
    ['harbour', 'harbuor', 1],
    ['tide', 'tide', 0],
    ['', 'abc', 3],
  ])('from %s to %s it is %i steps', (a, b, steps) => {
    // kitten and sitting: Levenshtein's textbook pair; ca and abc: Boytsov (2011), where the restricted distance is 3.
    expect(distanceWithin(a, b, 3)).toBe(steps);
    expect(distanceWithin(a, b, steps - 1)).toBeNull();
  });

  it('no term that is near enough is passed over by its letters', () => {
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c', 'é', '浪', 'з', '1'), maxLength: 9 });
    fc.assert(
      fc.property(word, word, fc.integer({ min: 1, max: 3 }), (a, b, most) => {
        fc.pre(distanceWithin(a, b, most) !== null);
        expect(countOfBits(lettersOf(a) ^ lettersOf(b))).toBeLessThanOrEqual(2 * most);
      }),
    );
  });

  it('a word with another beginning is among those that are asked for, in other letters too', () => {
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c', 'd'), minLength: 5, maxLength: 9 });
    const letter = fc.constantFrom('a', 'k', 'z');
    fc.assert(
      fc.property(word, letter, (meant, other) => {
        const [first = '', second = ''] = meant;
        const slips = [
          meant.slice(1),
          `${other}${meant}`,
          `${other}${meant.slice(1)}`,
          `${second}${first}${meant.slice(2)}`,
        ];
        for (const slip of slips) if (slip !== meant) expect(withOtherStart(slip)).toContain(meant);
      }),
    );
    expect(withOtherStart('зодная')).toContain('водная');
    expect(withOtherStart('cat')).toEqual([]);
  });

  it('takes the nearest, of equals the commonest, and leaves short words alone', () => {
    const terms: [string, number][] = [
      ['barnacl', 2],
      ['barnacle', 3],
      ['barn', 9],
      ['pinnacl', 5],
      ['barnacles', 7],
    ];
    expect(nearestTerms(['barnacel'], terms)).toEqual(['barnacle', 'barnacl']);
    expect(nearestTerms(['bar'], terms)).toEqual([]);
  });
});

it('an index after any puts and removals finds what a fresh one finds', async () => {
  const word = fc.constantFrom('tide', 'tides', 'moon', 'larch', 'oak', 'sea');
  const text = fc.array(word, { maxLength: 6 }).map((words) => words.join(' '));
  const step = fc.record({ id: fc.integer({ min: 0, max: 90 }).map(String), body: fc.option(text) });
  await fc.assert(
    fc.asyncProperty(
      fc.array(step, { maxLength: 300 }),
      fc.array(word, { minLength: 1, maxLength: 2 }),
      async (steps, asked) => {
        const changed = library({});
        const left = new Map<string, Entry>();
        for (const { id, body } of steps)
          if (body === null) {
            changed.index.remove(id);
            changed.facts.delete(id);
            left.delete(id);
          } else {
            changed.put(id, { body });
            left.set(id, { body });
          }
        const fresh = library(Object.fromEntries(left));
        for (const written of [asked.join(' '), `"${asked.join(' ')}"`, `${asked.join(' -')}*`])
          expect((await changed.ask(written)).hits).toEqual((await fresh.ask(written)).hits);
      },
    ),
    { numRuns: 60 },
  );
});
