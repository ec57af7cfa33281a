import { canonicalAddress } from '@dorvel/core/address';
import type { Item } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/records';
import { uuid } from '@dorvel/core/testing';
import { type Beginning, isBeginning, stepsOffered, stepsTaken } from './steps';

const DAY = 86_400_000;
const NOW = 1_790_000_000_000;
const GUIDE = 'https://library.skerrow.example/guide/how-to-use-dorvel.html';

function item(address: string, savedAt = NOW): Item {
  const id = uuid(1);
  return newItem({
    type: 'save',
    id,
    itemId: id,
    address,
    savedAt,
    stamp: `${savedAt.toString(36).padStart(9, '0')}-0000-a`,
  });
}

const nothing: Beginning = {
  items: [],
  guideKey: canonicalAddress(GUIDE),
  feeds: 0,
  installed: false,
  savesFromBrowser: null,
  mailed: null,
  takesMail: null,
};

describe('the first steps', () => {
  it('are none of them taken at first, nor by what the server could not be asked', () => {
    expect(stepsTaken(nothing).size).toBe(0);
  });

  it('are ticked off by what happened', () => {
    const read = item(GUIDE);
    read.progress.furthest = 0.2;
    const listed = item('https://tidewater.example/a');
    listed.choices.listedAs.value = 'From a list';
    expect([
      ...stepsTaken({
        ...nothing,
        items: [read, listed],
        feeds: 2,
        installed: true,
        savesFromBrowser: true,
        mailed: true,
      }),
    ]).toEqual(['guide', 'bring-in', 'button', 'phone', 'feed', 'mail']);
  });

  it('do not speak of mail where the server takes none', () => {
    expect(stepsOffered({ takesMail: false })).not.toContain('mail');
    for (const takesMail of [true, null]) expect(stepsOffered({ takesMail })).toContain('mail');
  });

  it('take the guide for read when it was begun, not when it was saved', () => {
    const guide = item(GUIDE);
    expect([...stepsTaken({ ...nothing, items: [guide] })]).toEqual([]);
    guide.choices.stage.value = 'finished';
    expect([...stepsTaken({ ...nothing, items: [guide] })]).toEqual(['guide']);
  });

  it('take a file for brought in, and a letter not', () => {
    const brought = (address: string) => stepsTaken({ ...nothing, items: [item(address)] }).has('bring-in');
    expect(brought('https://tidewater.example/a')).toBe(false);
    expect(brought('mid:a@skerrow.example')).toBe(false);
    expect(brought(`ni:///sha-256;${'A'.repeat(43)}`)).toBe(true);
  });
});

describe('a library at its beginning', () => {
  it('is one in which nothing was saved before three weeks ago', () => {
    expect(isBeginning([], NOW)).toBe(true);
    expect(isBeginning([item('https://tidewater.example/a', NOW - 20 * DAY)], NOW)).toBe(true);
    expect(isBeginning([item('https://tidewater.example/a', NOW - 22 * DAY)], NOW)).toBe(false);
  });

  it('is one also where what is older was brought along', () => {
    const old = item('https://tidewater.example/a', NOW - 900 * DAY);
    old.choices.listedAs.value = 'From a list';
    expect(isBeginning([old], NOW)).toBe(true);
  });
});
