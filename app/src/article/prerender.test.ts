import type { Item } from '@dorvel/core/model';
import { followAhead, makeReady, setAhead, showAhead, useAhead } from './prerender';

const mockCopies = new Map<string, object>();
jest.mock('@/device/cache/snapshot-cache', () => ({
  cacheSnapshotOf: (id: string) => Promise.resolve(mockCopies.get(id) ?? null),
  plainTextOf: jest.fn(),
}));

const item = (copyId: string | null) =>
  ({ id: 'an item', capture: { page: copyId === null ? null : { copyId } } }) as unknown as Item;
const given = () => useAhead.getState();

beforeEach(() => {
  useAhead.setState({ href: null, shown: false });
  mockCopies.set('here', { tree: { type: 'root', children: [] } });
});

it('sets ahead what is here, and not what would have to be set as a whole or cannot be', async () => {
  await makeReady(item('elsewhere'), '/queue/1');
  await makeReady(item(null), '/queue/2');
  await makeReady(item('here'), '/library/3?at=12-20');
  expect(given().href).toBeNull();
  await makeReady(item('here'), '/queue/4');
  expect(given()).toEqual({ href: '/queue/4', shown: false });
});

it('shows at once what is set ahead, and opens it after that frame', async () => {
  jest.useFakeTimers();
  const opened = jest.fn();
  await makeReady(item('here'), '/queue/1');
  expect(showAhead('/queue/2', opened)).toBe(false);
  expect(showAhead('/queue/1', opened)).toBe(true);
  expect(given().shown).toBe(true);
  expect(opened).not.toHaveBeenCalled();
  jest.runAllTimers();
  expect(opened).toHaveBeenCalledTimes(1);
  jest.useRealTimers();
});

it('leaves what is shown alone when something else is touched before it has been opened', async () => {
  useAhead.setState({ href: '/queue/1', shown: true });
  await makeReady(item('here'), '/queue/2');
  expect(given().href).toBe('/queue/1');
});

it('leaves a press that asks for a window of its own to the browser', () => {
  setAhead('/dossiers/1');
  const press = { button: 0, metaKey: false, ctrlKey: true, shiftKey: false, altKey: false, preventDefault: jest.fn() };
  const follow = (event: object) => followAhead(event as never, '/dossiers/1', jest.fn());
  follow(press);
  expect([given().shown, press.preventDefault.mock.calls.length]).toEqual([false, 0]);
  follow({ ...press, ctrlKey: false });
  expect([given().shown, press.preventDefault.mock.calls.length]).toEqual([true, 1]);
});
