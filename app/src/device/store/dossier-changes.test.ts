import 'fake-indexeddb/auto';
import { inOrder, moveEntries } from '@dorvel/core/dossier';
import { NEW_DOSSIER } from '@dorvel/core/model';
import { liveText, noteText } from '@dorvel/core/notes';
import { v7 as uuidv7 } from 'uuid';
import { useAccount } from './account';
import {
  beginDossier,
  changeDossier,
  changeEntries,
  lastDossier,
  putInDossier,
  rerankEntries,
  writeInDossier,
} from './dossier-changes';
import { DeviceStore } from './store';

jest.mock('@/device/sync/sync-loop', () => ({ syncSoon: jest.fn(), tellOf: jest.fn() }));
Object.assign(globalThis, { structuredClone: (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown });

let store: DeviceStore;
beforeEach(() => {
  const id = uuidv7();
  store = new DeviceStore(id);
  localStorage.clear();
  useAccount.setState({ account: { id, mail: 'a@example.org', name: 'A' }, store } as never);
});
afterEach(() => store.delete());

const inIt = async (dossierId: string) => inOrder(await store.entries.toArray(), dossierId);

it('what is put in stands where it was put, and each change waits to be sent', async () => {
  const id = await beginDossier('  Engines  ');
  expect((await store.dossiers.get(id))?.choices.title.value).toBe('Engines');
  const [a = '', c = ''] = await putInDossier(id, [
    { kind: 'item', itemId: uuidv7() },
    { kind: 'heading', text: 'What else', nested: true },
  ]);
  const b = await writeInDossier(id, 'Too **heavy**.', 'judgement', 1);
  const ordered = await inIt(id);
  expect(ordered.map((each) => each.id)).toEqual([a, b, c]);
  expect(ordered[1]?.choices.purpose.value).toBe('judgement');
  expect(ordered[2]?.choices).toMatchObject({ text: { value: 'What else' }, nested: { value: true } });
  const noteId = ordered[1]?.part.kind === 'note' ? ordered[1].part.noteId : '';
  expect(liveText(await store.notes.get(noteId))).toBe('Too **heavy**.');
  expect((await store.outbox.toArray()).map(({ mutation }) => mutation.type)).toEqual([
    ...['dossier', 'entry', 'entry', 'write', 'entry'],
  ]);

  await rerankEntries(moveEntries(ordered, 2, 1, 0));
  expect((await inIt(id)).map((each) => each.id)).toEqual([c, a, b]);
  await changeEntries([a], { removed: true });
  expect((await inIt(id)).map((each) => each.id)).toEqual([c, b]);
  await changeEntries([a], { removed: false });
  expect((await inIt(id)).map((each) => each.id)).toEqual([c, a, b]);
});

it('the dossier that was used last is the one that was filled last, and none that was let go', async () => {
  expect(await lastDossier()).toBeNull();
  const first = await beginDossier('First');
  const second = await beginDossier('Second');
  expect((await lastDossier())?.id).toBe(second);
  await putInDossier(first, [{ kind: 'item', itemId: uuidv7() }]);
  expect((await lastDossier())?.id).toBe(first);
  await changeDossier(first, { removed: true });
  expect((await lastDossier())?.id).toBe(second);
});

it('a cell is one of its row alone, and a column one of the dossier', async () => {
  const id = await beginDossier('Engines');
  const [a = '', b = ''] = await putInDossier(
    id,
    [uuidv7(), uuidv7()].map((itemId) => ({ kind: 'item', itemId })),
  );
  await changeEntries([a], {}, { 'own-1': 'yes' });
  await changeDossier(id, {}, { 'own-1': { title: 'Fits', hidden: false } });
  expect((await store.entries.get(a))?.cells['own-1']?.value).toBe('yes');
  expect((await store.entries.get(b))?.cells).toEqual({});
  expect((await store.dossiers.get(id))?.columns['own-1']?.value.title).toBe('Fits');
});

const introductionOf = async (id: string) => {
  const dossier = await store.dossiers.get(id);
  return noteText({ versions: dossier?.words.introduction ?? [] });
};

it('what another device wrote around a dossier while a cover was open stays beside what is written in it', async () => {
  const id = await beginDossier('Engines');
  await changeDossier(id, { introduction: 'Three are compared.' });
  const began = await store.dossiers.get(id);
  await changeDossier(id, { introduction: 'Three are compared.\n\nPrices are of May.' });
  await changeDossier(id, { introduction: 'For the committee.\n\nThree are compared.' }, {}, began);
  expect(await introductionOf(id)).toBe('For the committee.\n\nThree are compared.\n\nPrices are of May.');
  await changeDossier(id, { introduction: 'Four.' });
  expect(await introductionOf(id)).toBe('Four.');
});

it('reads a dossier that is here from before its words were merged', async () => {
  const at = '0lx5k2n40-0000-aaaa';
  const stamped = Object.fromEntries(Object.entries(NEW_DOSSIER).map(([field, value]) => [field, { value, at }]));
  const id = uuidv7();
  const words = { introduction: { value: 'Written then.', at }, closing: { value: '', at } };
  await store.dossiers.add({ id, madeAt: 1, choices: { ...stamped, ...words }, columns: {} } as never);
  expect(await introductionOf(id)).toBe('Written then.');
  expect(Object.keys((await store.dossiers.get(id))?.choices ?? {})).toEqual(Object.keys(NEW_DOSSIER));
});
