import 'fake-indexeddb/auto';
import { v7 as uuidv7 } from 'uuid';
import { useAccount } from '@/device/store/account';
import { changeHighlight } from '@/device/store/changes';
import { DeviceStore } from '@/device/store/store';
import { highlightPart } from './marking';

jest.mock('@/device/sync/sync-loop', () => ({ syncSoon: jest.fn(), tellOf: jest.fn() }));
Object.assign(globalThis, { structuredClone: (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown });

const TEXT = 'The quay was empty. The ferry lay at the quay, and nobody came.';
const part = (words: string) => ({ start: TEXT.indexOf(words), end: TEXT.indexOf(words) + words.length });
const itemId = uuidv7();
const copyId = uuidv7();

let store: DeviceStore;
beforeEach(() => {
  const id = uuidv7();
  store = new DeviceStore(id);
  localStorage.clear();
  useAccount.setState({ account: { id, mail: 'a@example.org', name: 'A' }, store } as never);
});
afterEach(() => store.delete());

const mark = (words: string) => highlightPart(itemId, copyId, TEXT, 'key', part(words));
const marked = async () => (await store.highlightsOf(itemId)).map(({ choices }) => choices.passage.value.exact);

it('one that follows before the one that it touches is shown makes it grow', async () => {
  const [first, second] = await Promise.all([mark('The ferry lay'), mark('lay at the quay')]);
  expect(second).toBe(first);
  expect(await marked()).toEqual(['The ferry lay at the quay']);
});

it('one that cannot be recorded is told to whoever asked, and does not hold up the next', async () => {
  const add = jest.spyOn(store.outbox, 'add').mockRejectedValueOnce(new Error('the disk is full'));
  const [refused, made] = await Promise.allSettled([mark('The quay'), mark('nobody came')]);
  add.mockRestore();
  expect(refused.status).toBe('rejected');
  expect(made.status).toBe('fulfilled');
  expect(await marked()).toEqual(['nobody came']);
});

it('what was taken off is not grown', async () => {
  await changeHighlight(await mark('The ferry'), { removed: true });
  await mark('ferry lay');
  expect(await marked()).toEqual(['ferry lay']);
});
