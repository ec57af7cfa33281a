import type { Highlight, Note, WorkedOver } from '../model';
import { addDays } from '../reading';
import { highlightFrom, noteFrom } from '../testing';
import { dueForWords, putOff, toWorkOver } from '.';

const dayOf = (instant: number) => new Date(instant).toISOString().slice(0, 10);
const ITEM = '01900000-0000-7000-8000-000000000001';
let made = 0;
const newId = () => `01900000-0000-7000-8000-${String(++made).padStart(12, '0')}`;
const highlight = (madeOn: string, workedOver: Partial<WorkedOver> = {}, removed = false): Highlight =>
  highlightFrom({ id: newId(), itemId: ITEM, madeAt: Date.parse(`${madeOn}T12:00Z`), workedOver, removed });
const note = (on: Note['on'], text = 'In my words.', removed = false): Note =>
  noteFrom({ id: newId(), itemId: ITEM, on, text, removed });
const due = (highlights: Highlight[], today: string, notes: Note[] = []) =>
  dueForWords(toWorkOver(highlights, notes, dayOf), today).map((each) => each.highlight.id);

describe('what is to be put in own words', () => {
  it('comes the day after it was marked, the one that waits longest first', () => {
    const [later, first] = [highlight('2026-11-20'), highlight('2026-11-18')];
    expect(due([later, first], '2026-11-18')).toEqual([]);
    expect(due([later, first], '2026-11-19')).toEqual([first.id]);
    expect(due([later, first], '2026-11-21')).toEqual([first.id, later.id]);
  });

  it('put off, comes again after a week, then after a month each time', () => {
    let state: WorkedOver = { times: 0, lastOn: null, done: false };
    for (const wait of [7, 30, 30]) {
      state = putOff(state, '2026-11-20');
      const put = highlight('2026-11-01', state);
      expect(due([put], addDays('2026-11-20', wait - 1))).toEqual([]);
      expect(due([put], addDays('2026-11-20', wait))).toEqual([put.id]);
    }
  });

  it('does not come when it has been, is done with, or was removed', () => {
    const worded = highlight('2026-11-01');
    const on: Note['on'] = { kind: 'highlight', id: worded.id };
    expect(due([worded], '2026-11-20', [note(on)])).toEqual([]);
    // A note that says nothing, or was removed, or stands on something else is no words on it.
    for (const other of [note(on, ''), note(on, 'x', true), note({ kind: 'item' })])
      expect(due([worded], '2026-11-20', [other])).toEqual([worded.id]);
    expect(due([highlight('2026-11-01', { done: true }), highlight('2026-11-01', {}, true)], '2026-11-20')).toEqual([]);
  });
});
