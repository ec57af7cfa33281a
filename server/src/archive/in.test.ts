import { writeFile } from 'node:fs/promises';
import { buffer } from 'node:stream/consumers';
import type { ArchiveLook, Item } from '@dorvel/core/model';
import { changeMaker, itemKind, REGISTRY } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { anyChange, type Draft, DRAFTS, FIRST_INSTANT, pageFrom, uuid } from '@dorvel/core/testing';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { folderStore } from '../files/files';
import { takePush } from '../library/take-mutations';
import { openTestLibrary } from '../library/test-library.test-data';
import { tricked } from '../publish/handed-on.test-data';
import { goThrough } from './in';
import { archiveFiles } from './out';
import { packed } from './pack';
import { openArchive } from './read';

const NOW = FIRST_INSTANT + 1_000_000;
type Opened = Awaited<ReturnType<typeof openTestLibrary>>;
const filesOf = ({ folder }: Opened) => folderStore(`${folder}/pictures`);

async function archiveOf(at: Pick<Opened, 'database' | 'library' | 'accountId'>, files: ReturnType<typeof filesOf>) {
  const account = { id: at.accountId, mail: 'a@example.org', name: 'A' };
  return buffer(packed(archiveFiles(account, { ...at, files, now: NOW }), NOW));
}

async function through(into: Opened, bytes: Uint8Array, brings = true, now = NOW): Promise<ArchiveLook> {
  const file = `${into.folder}/in.zip`;
  await writeFile(file, bytes);
  const archive = await openArchive(file);
  const clock = createClock('server', () => now);
  try {
    return await goThrough(
      archive,
      { ...into, files: filesOf(into), clock, now: () => now },
      { brings, step: () => undefined, isWanted: () => true },
    );
  } finally {
    await archive.close();
  }
}

/** An archive with other files in it: what somebody else might give. */
const archiveWith = (files: Readonly<Record<string, unknown[] | string | Uint8Array>>, about: object = {}) =>
  zipSync({
    'library.json': strToU8(
      JSON.stringify({ is: 'dorvel-archive', format: 1, madeAt: '2026-11-28T09:00:00.000Z', name: 'B', ...about }),
    ),
    ...Object.fromEntries(
      Object.entries(files).map(([name, content]) => [
        name,
        Array.isArray(content)
          ? strToU8(content.map((line) => (typeof line === 'string' ? line : JSON.stringify(line))).join('\n'))
          : typeof content === 'string'
            ? strToU8(content)
            : content,
      ]),
    ),
  });

async function push(at: Opened, drafts: readonly Draft[], device: string, begin = FIRST_INSTANT): Promise<void> {
  let now = begin;
  const stamps = createClock(device, () => (now += 7));
  const mutations = drafts.map((draft, n) => ({ ...draft, id: uuid(2000 + n), stamp: stamps.next() }));
  await takePush(at.library, { mutations }, { clock: createClock('server', () => NOW), now: () => NOW });
}

async function inLibraries<Result>(count: number, work: (...at: Opened[]) => Promise<Result>): Promise<Result> {
  const opened: Opened[] = [];
  try {
    while (opened.length < count) opened.push(await openTestLibrary(() => NOW));
    return await work(...opened);
  } finally {
    for (const each of opened) each.close();
  }
}

const recordsOf = async ({ library }: Opened) => {
  const { records } = await library.changesAfter(0);
  return Object.fromEntries(
    REGISTRY.kinds.map(({ plural }) => [plural, [...(records[plural] ?? [])].sort((a, b) => (a.id < b.id ? -1 : 1))]),
  );
};
const countsOf = (look: ArchiveLook, plural: string) => look.kinds.find((kind) => kind.plural === plural)?.standings;
const makes = Object.values(DRAFTS).flatMap((draft) => [draft(1).makes, draft(2).makes]);

it('loses nothing: out, in and out again is the same archive, byte for byte', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(anyChange, { maxLength: 40 }), (drafts) =>
      inLibraries(2, async (from, to) => {
        await push(from, [...makes, ...drafts], 'a');
        const out = await archiveOf(from, filesOf(from));
        const look = await through(to, out);
        expect(look.faults).toEqual([]);
        expect(await recordsOf(to)).toEqual(await recordsOf(from));
        expect(Buffer.compare(await archiveOf(to, filesOf(to)), out)).toBe(0);
        const again = await through(to, out, false);
        for (const { plural, standings } of again.kinds)
          expect([plural, { ...standings, same: 0 }]).toEqual([
            plural,
            { new: 0, same: 0, 'newer-here': 0, 'newer-there': 0, both: 0 },
          ]);
      }),
    ),
    { numRuns: 5 },
  );
});

it('loses neither texts nor pictures, whatever their words', async () => {
  const from = await tricked();
  try {
    await inLibraries(1, async (to) => {
      const out = await archiveOf(from, from.files);
      const look = await through(to, out, true, Date.UTC(2026, 10, 29));
      expect(look.faults).toEqual([]);
      expect(countsOf(look, 'pictures')?.new).toBe(1);
      expect(Buffer.compare(await archiveOf(to, filesOf(to)), out)).toBe(0);
      expect(await filesOf(to).read(from.hash)).toEqual(await from.files.read(from.hash));
    });
  } finally {
    from.close();
  }
});

it('joins what was done apart, the same from either side, and looks without touching', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(anyChange, { minLength: 1, maxLength: 20 }),
      fc.array(anyChange, { minLength: 1, maxLength: 20 }),
      (here, there) =>
        inLibraries(2, async (a, b) => {
          await push(a, [...makes, ...here], 'a');
          await push(b, [...makes, ...there], 'b');
          const [ofA, ofB] = [await archiveOf(a, filesOf(a)), await archiveOf(b, filesOf(b))];
          const before = await recordsOf(a);
          const looked = await through(a, ofB, false);
          expect(await recordsOf(a)).toEqual(before);
          expect(await through(a, ofB)).toEqual(looked);
          await through(b, ofA);
          // What the server numbers is its own; all that readers do comes to the same.
          const readers = async (at: Opened) =>
            JSON.parse(
              JSON.stringify(await recordsOf(at), (key, value: unknown) => (key === 'revision' ? 0 : value)),
            ) as unknown;
          expect(await readers(a)).toEqual(await readers(b));
        }),
    ),
    { numRuns: 5 },
  );
});

it('tells beforehand what is new, what is the same, and which of the two is later', () =>
  inLibraries(2, async (here, there) => {
    const itemIds = [1, 2, 3, 4].map(uuid);
    const save = (n: number): Draft => ({ ...DRAFTS.item!(n).makes });
    const stage = (n: number, value: string): Draft =>
      ({ type: 'choose', itemId: itemIds[n - 1], set: { stage: value } }) as Draft;
    const tag = (n: number): Draft => ({ type: 'tag', itemId: itemIds[n - 1], set: { sea: 'sea' } }) as Draft;
    await push(there, [1, 2, 3, 4, 5].map(save), 'a');
    await through(here, await archiveOf(there, filesOf(there)));
    await push(there, [save(6), stage(2, 'kept'), stage(4, 'kept')], 'a', FIRST_INSTANT + 5000);
    await push(here, [stage(3, 'finished'), tag(4)], 'b', FIRST_INSTANT + 9000);
    const look = await through(here, await archiveOf(there, filesOf(there)), false);
    expect(countsOf(look, 'items')).toEqual({ new: 1, same: 2, 'newer-there': 1, 'newer-here': 1, both: 1 });
    expect(look.differing.map(({ standing }) => standing)).toEqual(['newer-there', 'newer-here', 'both']);
    expect(look).toMatchObject({ name: 'A', madeAt: new Date(NOW).toISOString() });
  }));

it('makes one of two saves of a page, with what was marked in either', () =>
  inLibraries(2, async (here, there) => {
    const make = changeMaker({ clock: createClock('a', () => NOW), newId: () => crypto.randomUUID(), now: () => NOW });
    const [mine, theirs] = [
      make.save({ address: 'https://x.example/reef' }),
      make.save({ address: 'http://x.example/reef#top' }),
    ];
    const passage = { exact: 'eelgrass', prefix: '', suffix: '', start: 4, copyId: null };
    const mark = make.highlight(theirs.itemId, 'key', passage);
    const tag = make.tag(theirs.itemId, { sea: 'sea' }, itemKind.apply(undefined, theirs));
    const tools = { clock: createClock('server', () => NOW), now: () => NOW };
    await takePush(here.library, { mutations: [mine] }, tools);
    await takePush(there.library, { mutations: [theirs, mark, tag] }, tools);
    await there.library.change(async (write) => {
      const item = (await write.item(theirs.itemId))!;
      const copyId = crypto.randomUUID();
      const page = pageFrom({ title: 'The reef', copyId });
      const note = { id: copyId, madeAt: NOW, hash: 'a'.repeat(64), wordCount: 3, origin: 'fetched' as const };
      await write.put({ ...item, capture: { ...item.capture, state: 'arrived', page, copies: [note] } });
      await write.putCopy({
        ...{ id: copyId, itemId: item.id, madeAt: NOW, title: null, language: null, hash: null },
        tree: { type: 'root', children: [] },
      });
    });
    await through(here, await archiveOf(there, filesOf(there)));
    const items = (await recordsOf(here)).items as Item[];
    const one = items.find(({ id }) => id === mine.itemId)!;
    expect(one.tags.sea?.value).toBe('sea');
    // It had no text yet, and has the other's now.
    expect(one.capture).toMatchObject({ duplicateOf: null, page: { title: 'The reef' } });
    expect(await here.library.copy(one.capture.page?.copyId ?? '')).toMatchObject({ itemId: mine.itemId });
    expect(items.find(({ id }) => id === theirs.itemId)?.capture.duplicateOf).toBe(mine.itemId);
    expect(await here.library.highlightsOf(mine.itemId)).toHaveLength(1);
    // And again: the same.
    const again = await through(here, await archiveOf(there, filesOf(there)), false);
    expect(countsOf(again, 'highlights')).toMatchObject({ new: 0, same: 1 });
    expect(countsOf(again, 'items')).toMatchObject({ new: 0 });
  }));

describe('what somebody else might give', () => {
  const item = (n: number, changed: Partial<Item> = {}) =>
    ({
      ...itemKind.apply(undefined, {
        ...DRAFTS.item!(n).makes,
        id: uuid(9),
        stamp: createClock('a', () => NOW).next(),
      } as never),
      ...changed,
    }) as Item;

  const highlight = (n: number) =>
    REGISTRY.named('highlight').apply(undefined, {
      ...DRAFTS.highlight!(n).makes,
      id: uuid(9),
      stamp: createClock('a', () => NOW).next(),
    });

  it('is told of when it cannot be read, and the rest comes in', () =>
    inLibraries(1, async (to) => {
      const deep = `${'['.repeat(100_000)}${']'.repeat(100_000)}`;
      const look = await through(
        to,
        archiveWith({
          'records/items.jsonl': [
            item(1),
            'not json',
            'null',
            '[]',
            deep,
            { id: 'x' },
            { ...item(2), choices: 7 },
            item(3),
          ],
          'records/highlights.jsonl': [highlight(7), highlight(1)],
          'records/notes.jsonl': [{ id: uuid(5), madeAt: 1, itemId: null, on: { kind: 'nothing' }, versions: 'x' }],
        }),
      );
      expect(countsOf(look, 'items')).toMatchObject({ new: 3 });
      // Of one that cannot be read the address is kept.
      expect(((await recordsOf(to)).items as Item[]).map(({ address }) => address)).toEqual(
        [1, 2, 3].map((n) => `https://x.example/${n}`),
      );
      expect(look.faultCount).toBe(7);
      expect(look.faults.at(-2)).toMatchObject({ plural: 'highlights', fault: 'belongs-nowhere' });
      expect((await recordsOf(to)).highlights).toHaveLength(1);
    }));

  it.each(['javascript:alert(1)', 'data:text/html,x', 'file:///etc/passwd', 'nowhere'])(
    'leads nowhere by the address %s',
    (address) =>
      inLibraries(1, async (to) => {
        const safe = item(2);
        const page = { ...pageFrom({ title: 'x' }), licenceUrl: address };
        const look = await through(
          to,
          archiveWith({
            'records/items.jsonl': [item(1, { address }), { ...safe, capture: { ...safe.capture, page } }],
          }),
        );
        expect(look.faults).toEqual([{ plural: 'items', name: address, fault: 'address' }]);
        const [one] = (await recordsOf(to)).items as Item[];
        expect(one?.capture.page?.licenceUrl).toBeNull();
      }),
  );

  it('has no script in its texts, and no pictures but such as they say', () =>
    inLibraries(1, async (to) => {
      const [copyId, hash] = [uuid(50), 'ab'.repeat(32)];
      const script = { type: 'element', tagName: 'script', properties: {}, children: [{ type: 'text', value: 'x' }] };
      const link = { type: 'element', tagName: 'a', properties: { href: 'javascript:x', onClick: 'x' }, children: [] };
      const tree = { type: 'root', children: [{ ...script, tagName: 'p', children: [script, link] }] };
      const look = await through(
        to,
        archiveWith({
          'records/items.jsonl': [item(1)],
          'copies.jsonl': [{ id: copyId, itemId: uuid(1), madeAt: 1, title: null, language: null, hash: null, tree }],
          [`pictures/${hash}.webp`]: '<html><script>x</script>',
        }),
      );
      expect(JSON.stringify((await to.library.copy(copyId))?.tree)).not.toMatch(/script|onClick/);
      expect(look.faults).toEqual([{ plural: 'pictures', name: hash.slice(0, 12), fault: 'damaged' }]);
      expect(await to.library.ownsPicture(hash)).toBe(false);
    }));

  it('wins over nothing by stamps that are still to come, and does not end the numbering of changes', () =>
    inLibraries(1, async (to) => {
      const future = createClock('z', () => Date.UTC(2199, 0)).next();
      const one = item(1);
      one.choices.stage = { value: 'let-go', at: future };
      one.capture.revision = Number.MAX_SAFE_INTEGER;
      await through(to, archiveWith({ 'records/items.jsonl': [one] }));
      await push(to, [{ type: 'choose', itemId: uuid(1), set: { stage: 'kept' } } as Draft], 'a');
      const [read] = (await recordsOf(to)).items as Item[];
      expect((read?.choices.stage.at ?? future) < future).toBe(true);
      expect(read?.choices.stage.value).toBe('let-go');
      expect(read?.capture.revision).toBe(0);
      const { cursor } = await to.library.changesAfter(0);
      expect(cursor).toBeLessThan(100);
    }));

  it.each([
    ['nothing', new Uint8Array(), 'not-packed'],
    ['words', strToU8('PK but no'), 'not-packed'],
    ['half an archive', archiveWith({ 'records/items.jsonl': [1] }).slice(0, 60), 'not-packed'],
    ['another ZIP file', zipSync({ 'a.txt': strToU8('a') }), 'not-ours'],
    ['one of a newer Dorvel', archiveWith({}, { format: 99 }), 'newer'],
    ['one with names that lead out of it', archiveWith({ '../../etc/passwd': 'x' }), 'not-packed'],
    ['one that says nothing of itself', zipSync({ 'library.json': strToU8('{') }), 'not-ours'],
  ])('is no archive: %s', (_name, bytes, why) =>
    inLibraries(1, async (to) => {
      await expect(through(to, bytes)).rejects.toMatchObject({ why });
    }),
  );

  it('ends where it is told to, and what came in stays whole', () =>
    inLibraries(1, async (to) => {
      const file = `${to.folder}/in.zip`;
      await writeFile(file, archiveWith({ 'records/items.jsonl': Array.from({ length: 120 }, (_, n) => item(n + 1)) }));
      const archive = await openArchive(file);
      let asked = 0;
      const parts = { ...to, files: filesOf(to), clock: createClock('server', () => NOW), now: () => NOW };
      await goThrough(archive, parts, { brings: true, step: () => undefined, isWanted: () => ++asked <= 2 });
      await archive.close();
      expect((await recordsOf(to)).items).toHaveLength(100);
    }));
});
