import { newItem } from '../records';
import {
  alreadySavedWords,
  publishedWords,
  savedShort,
  savedWords,
  sourceInLine,
  sourceOf,
  titleOf,
} from './item-words';

const NOW = new Date(2026, 10, 24, 18, 10).getTime();
const DAY_MS = 86_400_000;
const item = (address: string, savedAt = NOW) =>
  newItem({ type: 'save', id: '', itemId: '', address, savedAt, stamp: '000000001-0000-a' });

describe('an item in words', () => {
  test.each([
    [0, 'saved today', 'today'],
    [1, 'saved yesterday', 'yesterday'],
    [4, 'saved on Friday', 'Friday'],
    [20, 'saved on 4 November', '4 Nov'],
    [400, 'saved on 20 October 2025', '20 Oct 2025'],
  ])('saved %d days ago', (days, words, short) => {
    const saved = item('https://example.org/', NOW - days * DAY_MS);
    expect([savedWords(saved, NOW), savedShort(saved, NOW)]).toEqual([words, short]);
  });

  it('goes by its address until its page has arrived', () => {
    const waiting = item('https://www.example.org/a/page?x=1');
    expect([titleOf(waiting), sourceOf(waiting)]).toEqual(['example.org/a/page?x=1', 'example.org']);
    waiting.choices.title = { value: 'My own title', at: '1' };
    expect(titleOf(waiting)).toBe('My own title');
  });

  // Unicode Bidirectional Algorithm, UAX #9, 2.5: implicit directional marks and isolates.
  it('keeps a name from right to left apart from the words beside it', () => {
    const named = (siteName: string) => {
      const one = item('https://example.org/');
      one.capture.page = { siteName } as never;
      return [sourceOf(one), sourceInLine(one)];
    };
    expect(named('مرصد السماء')).toEqual(['مرصد السماء', '\u200e\u2068مرصد السماء\u2069']);
    expect(named('כתב העת')[1]).toBe('\u200e\u2068כתב העת\u2069');
    expect(named('Tidewater')).toEqual(['Tidewater', 'Tidewater']);
  });

  it('says where a page is that is saved again, and how far read', () => {
    const known = item('https://example.org/', NOW);
    known.choices.stage.value = 'queue';
    known.progress.furthest = 0.4;
    expect(alreadySavedWords(known)).toMatch(/^Already saved .*: in Queue, 40 % read\. Moved to the top\.$/);
  });

  it('keeps the day that the page states, whatever zone this device is in', () => {
    const dated = item('https://example.org/');
    dated.capture.page = { publishedAt: '2026-03-04T23:30:00+01:00' } as never;
    expect(publishedWords(dated)).toBe('4 March 2026');
  });
});
