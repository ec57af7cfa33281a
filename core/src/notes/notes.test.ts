import fc from 'fast-check';
import { Note, type TextVersion } from '../model';
import { changeMaker, noteKind } from '../records';
import { createClock } from '../sync';
import { FIRST_INSTANT, noteFrom, uuid } from '../testing';
import { noteText, ownNote } from '.';
import { headsOf, mergeVersions } from './versions';

/** Three devices that write one note and hear of each other when they do. */
function devices() {
  let now = FIRST_INSTANT;
  let made = 0;
  return ['a', 'b', 'c'].map((name) => {
    const clock = createClock(name, () => (now += 5));
    const make = changeMaker({ clock, newId: () => uuid(++made), now: () => now });
    let note: Note | undefined;
    return {
      note: () => note,
      text: () => (note ? noteText(note) : ''),
      write(text: string, asSeen: Note | undefined = note) {
        const change = asSeen ? make.changeNote(asSeen, { text }) : make.note(ownNote.ofItem(uuid(500)), { text });
        note = noteKind.apply(note, change);
      },
      hear(other: Note | undefined) {
        if (other) note = note ? noteKind.merge(note, other) : other;
      },
    };
  });
}
type Device = ReturnType<typeof devices>[number];
const trio = () => devices() as [Device, Device, Device];

const wordsOf = (text: string) => new Set(text.split(/\s+/).filter(Boolean));

describe('a text that was written apart', () => {
  it('is what both made of it, line by line', () => {
    const [a, b] = trio();
    a.write('Ask the yard.\n\nBuy rope.\n\nRead on.');
    b.hear(a.note());
    a.write('Ask the yard about larch.\n\nBuy rope.\n\nRead on.');
    b.write('Ask the yard.\n\nBuy rope.\n\nRead on.\n\nTell Ines.');
    a.hear(b.note());
    b.hear(a.note());
    expect(a.text()).toBe('Ask the yard about larch.\n\nBuy rope.\n\nRead on.\n\nTell Ines.');
    expect(b.text()).toBe(a.text());
  });

  it('has both readings, one under the other, where both changed the same words', () => {
    const [a, b] = trio();
    a.write('Before.\nMeet on Monday.\nAfter.');
    b.hear(a.note());
    a.write('Before.\nMeet on Tuesday.\nAfter.');
    b.write('Before.\nMeet on Friday.\nAfter.');
    a.hear(b.note());
    expect(a.text()).toBe('Before.\nMeet on Tuesday.\n\nMeet on Friday.\nAfter.');
    // Who goes on from there has seen both.
    a.write('Before.\nMeet on Friday.\nAfter.');
    b.hear(a.note());
    expect(b.text()).toBe('Before.\nMeet on Friday.\nAfter.');
  });

  it('is both when it was begun on two devices, with what they share once', () => {
    const [a, b] = trio();
    a.write('Shared.\nMine.');
    b.write('Shared.\nYours.');
    a.hear(b.note());
    expect(a.text()).toBe('Shared.\nMine.\n\nYours.');
  });

  it('loses what one of them took out, and nothing else', () => {
    const [a, b] = trio();
    a.write('One.\nTwo.\nThree.');
    b.hear(a.note());
    a.write('One.\nThree.');
    b.write('One.\nTwo.\nThree.\nFour.');
    a.hear(b.note());
    expect(a.text()).toBe('One.\nThree.\nFour.');
  });

  it('keeps what came in while the reader was writing', () => {
    const [a, b] = trio();
    a.write('Start.');
    b.hear(a.note());
    const opened = a.note();
    b.write('Start.\nFrom elsewhere.');
    a.hear(b.note());
    a.write('Start of mine.', opened);
    expect(a.text()).toContain('Start of mine.');
    expect(a.text()).toContain('From elsewhere.');
  });
});

/** What a device does: takes words out of its text and puts a new one in somewhere, or hears of another device. */
const step = fc.record({
  by: fc.nat(2),
  hears: fc.option(fc.nat(2), { freq: 2 }),
  drops: fc.array(fc.nat(30), { maxLength: 2 }),
  at: fc.nat(30),
  asLine: fc.boolean(),
});

it('no word that somebody wrote is lost unless somebody who had seen it took it out, and all come to the same', () => {
  let conflicts = 0;
  fc.assert(
    fc.property(fc.array(step, { minLength: 3, maxLength: 24 }), (steps) => {
      const all = trio();
      const written = new Set<string>();
      const takenOut = new Set<string>();
      steps.forEach(({ by, hears, drops, at, asLine }, n) => {
        const device = all[by]!;
        if (hears !== null) {
          device.hear(all[hears]!.note());
          return;
        }
        const lines = device.text().split('\n');
        for (const drop of drops) {
          const [gone] = lines.splice(drop % Math.max(1, lines.length), 1);
          for (const word of wordsOf(gone ?? '')) takenOut.add(word);
        }
        const word = `word${n}`;
        written.add(word);
        const place = at % (lines.length + 1);
        if (asLine || lines.length === 0) lines.splice(place, 0, word);
        else lines[place % lines.length] = `${lines[place % lines.length]!} ${word}`;
        device.write(lines.join('\n'));
      });
      for (let round = 0; round < 2; round++) for (const one of all) for (const other of all) one.hear(other.note());
      const text = all[0].text();
      for (const device of all) expect(device.text()).toBe(text);
      const present = wordsOf(text);
      for (const word of written) if (!takenOut.has(word)) expect(present).toContain(word);
      if (headsOf(all[0].note()?.versions ?? []).length > 1) conflicts += 1;
    }),
  );
  expect(conflicts).toBeGreaterThan(20);
});

it('as many versions as are wanted are kept, and never one that nobody has seen', () => {
  const [a, b] = trio();
  a.write('Begun.');
  const early = a.note();
  b.hear(early);
  b.write('Begun.\nOffline for long.');
  for (let n = 0; n < 40; n++) a.write(`Begun.\nTake ${n}.`);
  expect(a.note()?.versions.length).toBe(13);
  a.hear(b.note());
  expect(a.text()).toContain('Take 39.');
  expect(a.text()).toContain('Offline for long.');
  // What had been seen and is kept no more does not come back with an old state.
  const before = a.note()!.versions;
  expect(before).not.toContainEqual(early!.versions[0]);
  a.hear(early);
  expect(a.note()?.versions).toEqual(before);
});

it('long texts are kept as two of their length, and what nobody has written over in any case', () => {
  const [a] = trio();
  for (let n = 0; n < 6; n++) a.write(`${n}`.repeat(20_000));
  expect(a.note()?.versions.map(({ text }) => text[0])).toEqual(['3', '4', '5']);
});

it('a note from before is read as one that its last writer had seen all of', () => {
  const { versions: _none, ...rest } = noteFrom({});
  const at = '000000009-0000-a';
  const before = { ...rest, on: null, choices: { ...rest.choices, text: { value: 'As it was.', at } } };
  const read = Note.parse(before);
  expect(noteText(read)).toBe('As it was.');
  expect(read.on).toEqual({ kind: 'nothing' });
  const earlier: TextVersion = { at: '000000008-0000-b', text: 'Older.', sees: {} };
  expect(headsOf(mergeVersions(read.versions, [earlier]))).toEqual(read.versions);
  expect(Note.parse({ ...before, itemId: uuid(1) }).on).toEqual({ kind: 'item' });
});
