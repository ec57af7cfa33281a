import type { Item } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/sync';
import type { KeptCopy } from '@/device/store';
import type { NarratorEvents } from '@/device/voice/narrator';

/** What the fakes are told and tell; the name lets jest see that it is for them. */
const mock = {
  progress: jest.fn(),
  activity: jest.fn(),
  played: [] as string[],
  hasVoice: true,
  events: undefined as NarratorEvents | undefined,
};
jest.mock('@/device/changes', () => ({
  recordProgress: (...words: unknown[]) => mock.progress(...words) as unknown,
  recordActivity: (...words: unknown[]) => mock.activity(...words) as unknown,
}));
jest.mock('@/device/account', () => {
  // The store subscribes while it is being loaded, before anything else here is ready.
  const listeners: ((now: object, before: object) => void)[] = [];
  return { listeners, useAccount: { subscribe: (listener: never) => listeners.push(listener) } };
});
jest.mock('./listening-settings-store', () => ({
  languageCode: () => 'en',
  useListeningSettings: { getState: () => ({ rate: 1, setRate: jest.fn(), setVoice: jest.fn() }) },
  chosenVoice: () =>
    mock.hasVoice
      ? {
          narrator: (_spoken: unknown, _rate: number, told: NarratorEvents) => {
            mock.events = told;
            return {
              play: (from: number) => mock.played.push(`play ${from}`),
              pause: () => mock.played.push('pause'),
              resume: () => mock.played.push('resume'),
              setRate: () => {},
              close: () => mock.played.push('close'),
            };
          },
        }
      : null,
}));
// The fakes have to stand before what uses them is loaded.
import { usePlayer } from './player-store';

const ID = '01900000-0000-7000-8000-000000000001';
const item: Item = newItem({
  type: 'save',
  id: ID,
  itemId: ID,
  address: 'https://example.org/',
  savedAt: 1,
  stamp: '000000001-0000-a',
});
const paragraph = (value: string) => ({
  type: 'element' as const,
  tagName: 'p',
  properties: {},
  children: [{ type: 'text' as const, value }],
});
const copy: KeptCopy = {
  id: ID,
  itemId: ID,
  madeAt: 1,
  title: 'T',
  language: 'en',
  bytes: 0,
  pictures: [],
  hash: null,
  tree: {
    type: 'root',
    children: [paragraph('One two. Three four.'), paragraph('Five six. Seven eight.')],
  },
};
const player = () => usePlayer.getState();
const lastProgress = () =>
  mock.progress.mock.calls.at(-1) as [string, number, { offset: number; fraction: number }, number[][]];

// jsdom's URL is older than the browsers'.
Object.assign(URL, { canParse: () => true });

beforeEach(() => {
  player().close();
  jest.clearAllMocks();
  mock.played.length = 0;
  mock.hasVoice = true;
});

describe('the player', () => {
  it('begins at the sentence in which the eyes are', () => {
    expect(player().listen(item, copy, 12)).toBe(true);
    expect(mock.played).toEqual(['play 1']);
  });

  it('has one place with the eyes: pausing records the sentence, and what went by ear', () => {
    player().listen(item, copy, 0);
    mock.events!.begun(0);
    mock.events!.heard(0, 1.5);
    mock.events!.begun(1);
    player().pause();
    const [itemId, furthest, position, heard] = lastProgress();
    expect(itemId).toBe(ID);
    expect(position.offset).toBe('One two. '.length);
    expect(furthest).toBeCloseTo(0.25);
    expect(heard).toEqual([[0, 250]]);
    expect(mock.activity.mock.calls.at(-1)?.[0]).toMatchObject({ by: 'ears', seconds: 1.5, words: 2 });
  });

  it('does not count as heard what was stepped over', () => {
    player().listen(item, copy, 0);
    mock.events!.begun(0);
    player().step(2);
    mock.events!.begun(2);
    player().pause();
    const [, furthest, , heard] = lastProgress();
    expect(heard).toEqual([]);
    expect(furthest).toBeCloseTo(0.5);
  });

  it('goes on from where the eyes have gone meanwhile', () => {
    player().listen(item, copy, 0);
    player().pause();
    player().moveTo(25);
    player().goOn();
    expect(mock.played.at(-1)).toBe('play 2');
    player().pause();
    player().goOn();
    expect(mock.played.at(-1)).toBe('resume');
  });

  it('is at the end when the last sentence has been heard, and offers to begin anew', () => {
    player().listen(item, copy, 35);
    mock.events!.begun(3);
    mock.events!.heard(3, 2);
    mock.events!.ended();
    const [, furthest, position] = lastProgress();
    expect([furthest, position.fraction]).toEqual([1, 1]);
    expect(player().ended).toBe(true);
    player().goOn();
    expect(mock.played.at(-1)).toBe('play 0');
  });

  it('keeps the place when it fails, and says why', () => {
    player().listen(item, copy, 12);
    mock.events!.begun(1);
    mock.events!.failed('The voice cannot go on.');
    expect(player()).toMatchObject({ playing: false, problem: 'The voice cannot go on.' });
    expect(lastProgress()[2].offset).toBe('One two. '.length);
  });

  it('falls silent when somebody else signs in, and records nothing in their library', () => {
    player().listen(item, copy, 0);
    mock.events!.begun(0);
    mock.events!.heard(0, 1.5);
    mock.progress.mockClear();
    const account: { listeners: ((now: object, before: object) => void)[] } =
      jest.requireMock('@/device/account');
    for (const changed of account.listeners) changed({ store: 'theirs' }, { store: 'hers' });
    expect(player().hearing).toBeNull();
    expect(mock.played.at(-1)).toBe('close');
    expect(mock.progress).not.toHaveBeenCalled();
  });

  it('says no when there is no voice, and touches nothing', () => {
    mock.hasVoice = false;
    expect(player().listen(item, copy, 0)).toBe(false);
    expect(player().hearing).toBeNull();
    expect(mock.progress).not.toHaveBeenCalled();
  });
});
