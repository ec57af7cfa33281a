import type { Activity, Item } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/records';
import { plainText, wordStarts } from '@dorvel/core/text';
import { v7 as uuidv7 } from 'uuid';
import { createStore } from 'zustand/vanilla';
import type { KeptCopy } from '@/device/store/store';
import type { NarratorEvents } from '@/device/voice/narrator';
import { createListeningRecord, type ListeningRecordParts } from './listening-record';
import type { Voice } from './listening-settings-store';
import { showOnLockScreen, takeMediaKeys } from './media-session';
import { player as createPlayer } from './player';

/** What the fakes are told and tell. */
const fake = {
  progress: jest.fn<Promise<void>, Parameters<ListeningRecordParts['recordProgress']>>(() => Promise.resolve()),
  activity: jest.fn<Promise<void>, [Activity]>(() => Promise.resolve()),
  marked: jest.fn(() => Promise.resolve()),
  settings: { rate: 1, goOnWithQueue: false, previousDoes: 'paragraph' },
  next: null as { item: Item; copy: KeptCopy } | null,
  saidUntil: null as number | null,
  passedOver: [] as { start: number; end: number }[],
  played: [] as string[],
  hasVoice: true,
  events: undefined as NarratorEvents | undefined,
};
const voice = {
  narrator: (_spoken: unknown, _rate: number, told: NarratorEvents) => {
    fake.events = told;
    return {
      play: (from: number) => fake.played.push(`play ${from}`),
      pause: () => fake.played.push('pause'),
      resume: () => fake.played.push('resume'),
      setRate: (rate: number) => fake.played.push(`rate ${rate}`),
      skip: (seconds: number) => fake.played.push(`skip ${seconds}`),
      saidUntil: () => fake.saidUntil,
      close: () => fake.played.push('close'),
    };
  },
} as unknown as Voice;
const ofPlayer = createStore(
  createPlayer({
    now: Date.now,
    textOf: ({ tree }) => {
      const plain = plainText(tree);
      return { plain, starts: wordStarts(plain.text, 'en') };
    },
    settings: () => fake.settings,
    setRate: (rate) => Object.assign(fake.settings, { rate }),
    chooseVoice: () => {},
    voiceFor: () => (fake.hasVoice ? voice : null),
    speechChoices: () => ({ headings: true, tables: 'summary', footnotes: false, own: [] }),
    passedOver: () => fake.passedOver,
    nextAfter: () => Promise.resolve(fake.next),
    record: createListeningRecord({
      now: Date.now,
      newId: uuidv7,
      dayOf: () => '2026-11-27',
      recordProgress: fake.progress,
      recordActivity: fake.activity,
    }),
    mark: fake.marked,
    showOnLockScreen,
  }),
);

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
const player = () => ofPlayer.getState();
const lastProgress = () => fake.progress.mock.calls.at(-1)!;

// jsdom's URL is older than the browsers'.
Object.assign(URL, { canParse: () => true });

beforeEach(() => {
  player().close();
  jest.clearAllMocks();
  fake.played.length = 0;
  fake.hasVoice = true;
  fake.next = null;
  fake.saidUntil = null;
  fake.passedOver = [];
  fake.settings = { rate: 1, goOnWithQueue: false, previousDoes: 'paragraph' };
  player().setSleep({ until: 'never' });
});

describe('the player', () => {
  it('begins at the sentence in which the eyes are', () => {
    expect(player().listen(item, copy, 12)).toBe(true);
    expect(fake.played).toEqual(['play 1']);
  });

  it('says a sentence again, slower, and the next one as before', () => {
    fake.settings.rate = 2;
    player().listen(item, copy, 12);
    fake.played.length = 0;
    player().sayAgain();
    fake.events?.begun(1);
    expect(fake.played).toEqual(['rate 1.5', 'play 1']);
    fake.events?.begun(2);
    expect(fake.played).toEqual(['rate 1.5', 'play 1', 'rate 2']);
  });

  it('marks the last ten words that were said, to be looked up', async () => {
    player().listen(item, copy, 0);
    fake.events?.begun(3);
    await player().lookUp();
    const [, passage, kind] = fake.marked.mock.calls.at(-1) as unknown as [string, { exact: string }, string];
    expect([passage.exact, kind]).toEqual(['One two. Three four.\n\nFive six. Seven eight.', 'question']);
    fake.saidUntil = 0;
    fake.events?.begun(2);
    await player().lookUp();
    const [, upToWord] = fake.marked.mock.calls.at(-1) as unknown as [string, { exact: string }];
    expect(upToWord.exact).toBe('One two. Three four.\n\nFive');
  });

  it('has one place with the eyes: pausing records the sentence, and what went by ear', () => {
    player().listen(item, copy, 0);
    fake.events!.begun(0);
    fake.events!.heard(0, 1.5);
    fake.events!.begun(1);
    player().pause();
    const [itemId, furthest, position, heard] = lastProgress();
    expect(itemId).toBe(ID);
    expect(position.offset).toBe('One two. '.length);
    expect(furthest).toBeCloseTo(0.25);
    expect(heard).toEqual([[0, 250]]);
    expect(fake.activity.mock.calls.at(-1)?.[0]).toMatchObject({ by: 'ears', seconds: 1.5, words: 2 });
  });

  it('does not count as heard what was stepped over', () => {
    player().listen(item, copy, 0);
    fake.events!.begun(0);
    player().step(2);
    fake.events!.begun(2);
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
    expect(fake.played.at(-1)).toBe('play 2');
    player().pause();
    player().goOn();
    expect(fake.played.at(-1)).toBe('resume');
  });

  it('is at the end when the last sentence has been heard, and offers to begin anew', () => {
    player().listen(item, copy, 35);
    fake.events!.begun(3);
    fake.events!.heard(3, 2);
    fake.events!.ended();
    const [, furthest, position] = lastProgress();
    expect([furthest, position.fraction]).toEqual([1, 1]);
    expect(player().ended).toBe(true);
    player().goOn();
    expect(fake.played.at(-1)).toBe('play 0');
  });

  it('keeps the place when it fails, and says why', () => {
    player().listen(item, copy, 12);
    fake.events!.begun(1);
    fake.events!.failed('The voice cannot go on.');
    expect(player()).toMatchObject({ playing: false, problem: 'The voice cannot go on.' });
    expect(lastProgress()[2].offset).toBe('One two. '.length);
  });

  it('falls silent when somebody else signs in, and records nothing in their library', () => {
    player().listen(item, copy, 0);
    fake.events!.begun(0);
    fake.events!.heard(0, 1.5);
    fake.progress.mockClear();
    player().silence();
    expect(player().hearing).toBeNull();
    expect(fake.played.at(-1)).toBe('close');
    expect(fake.progress).not.toHaveBeenCalled();
  });

  it('says no when there is no voice, and touches nothing', () => {
    fake.hasVoice = false;
    expect(player().listen(item, copy, 0)).toBe(false);
    expect(player().hearing).toBeNull();
    expect(fake.progress).not.toHaveBeenCalled();
  });

  it('steps by paragraphs: to the beginning of this one first, then of the one before', () => {
    player().listen(item, copy, 12);
    player().paragraph(1);
    expect(player().index).toBe(2);
    fake.events!.begun(3);
    player().paragraph(-1);
    expect(player().index).toBe(2);
    player().paragraph(-1);
    expect(player().index).toBe(0);
  });

  it('is silent after a jump in time when it was silent before', () => {
    player().listen(item, copy, 0);
    player().skip(15);
    expect(fake.played.at(-1)).toBe('skip 15');
    player().pause();
    player().skip(-15);
    expect(fake.played.slice(-2)).toEqual(['skip -15', 'pause']);
  });

  it('keeps its place when something else takes the sound', () => {
    player().listen(item, copy, 12);
    fake.events!.begun(1);
    fake.events!.interrupted();
    expect(player().playing).toBe(false);
    expect(lastProgress()[2].offset).toBe('One two. '.length);
    player().goOn();
    expect(fake.played.at(-1)).toBe('resume');
  });

  it('tells the word that is being said, as a part of the text', () => {
    player().listen(item, copy, 12);
    fake.events!.begun(1);
    expect(player().spokenWord()).toBeNull();
    fake.saidUntil = 'Three '.length;
    const word = player().spokenWord();
    expect('One two. Three four.'.slice(word!.start, word!.end)).toBe('four.');
  });
});

describe('what the reader knows already', () => {
  // “Three four.” and “Five six.”
  const known = [
    { start: 9, end: 20 },
    { start: 22, end: 31 },
  ];
  const heard = () => player().hearing!.spoken.map(({ start }) => start);

  it('is not read aloud where they want to pass over it', () => {
    fake.passedOver = known;
    player().listen(item, copy, 12);
    expect(heard()).toEqual([0, 32]);
    // The place was in what is passed over: the next that is heard.
    expect(fake.played).toEqual(['play 1']);
  });

  it('is passed over, or heard after all, from the same place on when they choose so meanwhile', () => {
    player().listen(item, copy, 0);
    fake.events!.begun(1);
    player().passOver(ID, known);
    expect(heard()).toEqual([0, 32]);
    expect(player()).toMatchObject({ index: 1, playing: true });
    player().pause();
    player().passOver(ID, []);
    expect(heard()).toHaveLength(4);
    expect(player()).toMatchObject({ index: 3, playing: false });
    fake.played.length = 0;
    player().passOver('another copy', known);
    player().passOver(ID, []);
    expect(fake.played).toEqual([]);
  });

  it('is heard all the same when nothing else is there', () => {
    fake.passedOver = [{ start: 0, end: 99 }];
    player().listen(item, copy, 0);
    expect(heard()).toHaveLength(4);
  });
});

describe('falling silent by itself', () => {
  it('waits for the end of the sentence when its time has come, and is awake again afterwards', () => {
    player().listen(item, copy, 0);
    fake.events!.begun(0);
    player().setSleep({ until: 'time', at: Date.now() - 1 });
    expect(player().playing).toBe(true);
    fake.events!.begun(1);
    expect(player()).toMatchObject({ playing: false, index: 1, sleep: { until: 'never' } });
  });

  it('stops before the next part, but not before the one with which it began', () => {
    const parts: KeptCopy = {
      ...copy,
      tree: {
        type: 'root',
        children: [
          { ...paragraph('First'), tagName: 'h2' },
          paragraph('One.'),
          { ...paragraph('Second'), tagName: 'h2' },
        ],
      },
    };
    player().listen(item, parts, 0);
    player().setSleep({ until: 'part' });
    fake.events!.begun(0);
    fake.events!.begun(1);
    expect(player().playing).toBe(true);
    fake.events!.begun(2);
    expect(player()).toMatchObject({ playing: false, index: 2 });
  });
});

describe('the Queue behind an article', () => {
  const OTHER = '01900000-0000-7000-8000-000000000002';
  const later = { item: { ...item, id: OTHER }, copy: { ...copy, itemId: OTHER } };
  const toTheEnd = async () => {
    player().listen(item, copy, 35);
    fake.events!.begun(3);
    fake.events!.ended();
    await Promise.resolve();
    await Promise.resolve();
  };

  it('is gone on with where the reader wants that, the title said first', async () => {
    fake.settings.goOnWithQueue = true;
    fake.next = later;
    await toTheEnd();
    expect(player().hearing?.itemId).toBe(OTHER);
    expect(player().hearing?.spoken[0]).toMatchObject({ kind: 'title', start: 0, end: 0 });
    expect(player().playing).toBe(true);
  });

  it('is not gone on with otherwise, nor when the voice was to sleep at the end', async () => {
    fake.next = later;
    await toTheEnd();
    expect(player()).toMatchObject({ playing: false, ended: true });
    fake.settings.goOnWithQueue = true;
    player().listen(item, copy, 35);
    player().setSleep({ until: 'article' });
    fake.events!.ended();
    await Promise.resolve();
    expect(player().hearing?.itemId).toBe(ID);
  });
});

describe('the lock screen and the headset (W3C Media Session)', () => {
  const actions = new Map<string, (details: object) => void>();
  const positions: object[] = [];
  beforeAll(() => {
    const mediaSession = {
      metadata: null,
      playbackState: 'none',
      setActionHandler: (action: string, handler: (details: object) => void) => actions.set(action, handler),
      setPositionState: (state: object) => positions.push(state),
    };
    Object.defineProperty(navigator, 'mediaSession', { value: mediaSession });
    Object.assign(globalThis, {
      MediaMetadata: class {
        constructor(readonly shown: object) {}
      },
    });
    takeMediaKeys({
      ...player(),
      next: () => player().paragraph(1),
      previous: () => {
        if (fake.settings.previousDoes === 'mark') void player().markHeard();
        else player().paragraph(-1);
      },
    });
  });
  const press = (action: string, details: object = {}) => actions.get(action)!({ action, ...details });

  it('know what is read, and how far', () => {
    player().listen(item, copy, 0);
    fake.events!.begun(2);
    const { metadata, playbackState } = navigator.mediaSession;
    expect(metadata).toMatchObject({ shown: { artist: 'example.org' } });
    expect(playbackState).toBe('playing');
    const { duration, position, playbackRate } = positions.at(-1) as Record<string, number>;
    expect(position! / duration!).toBeCloseTo(0.5);
    expect(playbackRate).toBe(1);
    player().pause();
    expect(navigator.mediaSession.playbackState).toBe('paused');
    player().close();
    expect(navigator.mediaSession.metadata).toBeNull();
  });

  it('pause, go on, step and jump', () => {
    player().listen(item, copy, 0);
    fake.events!.begun(0);
    press('pause');
    press('play');
    press('seekforward');
    press('seekbackward', { seekOffset: 10 });
    expect(fake.played.slice(-4)).toEqual(['pause', 'resume', 'skip 15', 'skip -10']);
    press('nexttrack');
    expect(player().index).toBe(2);
    press('previoustrack');
    expect(player().index).toBe(0);
    press('seekto', { seekTime: (positions.at(-1) as { duration: number }).duration * 0.6 });
    expect(player().index).toBe(2);
    press('stop');
    expect(player().hearing).toBeNull();
  });

  it('mark the sentence that is heard, where “previous” was given to that', () => {
    fake.settings.previousDoes = 'mark';
    player().listen(item, copy, 0);
    fake.events!.begun(1);
    press('previoustrack');
    expect(fake.marked).toHaveBeenCalledWith(
      ID,
      expect.objectContaining({ exact: 'Three four.', start: 9, copyId: ID }),
      'key',
    );
    expect(player().playing).toBe(true);
  });
});
