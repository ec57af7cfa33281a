import fc from 'fast-check';
import { partsOf } from './clauses';
import { guessedMarks, marksOf, wordsOf } from './marks';
import { timingOf } from './queues';
import { joined, levelled, msOf, samplesOf, silence, trimmed } from './sound';

const tone = (ms: number, level: number): Int16Array =>
  Int16Array.from({ length: samplesOf(ms) }, (_, at) => Math.round(level * 32_767 * Math.sin(at / 8)));
const loudness = (pcm: Int16Array): number =>
  10 * Math.log10(pcm.reduce((sum, sample) => sum + (sample / 32_767) ** 2, 0) / pcm.length);

describe('a sound', () => {
  it('loses the silence at both ends, but for the edge of what is heard', () => {
    const { pcm, cut } = trimmed(joined([silence(300), tone(500, 0.3), silence(650)]));
    expect(msOf(pcm.length)).toBeGreaterThanOrEqual(500);
    expect(msOf(pcm.length)).toBeLessThan(540);
    expect(msOf(cut)).toBeGreaterThan(285);
    expect(trimmed(silence(500)).pcm).toHaveLength(0);
  });

  it('is as loud as any other, however loud it was made, pauses not counted', () => {
    const wanted = loudness(levelled(tone(2000, 0.2), 0));
    for (const level of [0.12, 0.25, 0.4]) expect(loudness(levelled(tone(2000, level), 0))).toBeCloseTo(wanted, 1);
    const paused = joined([tone(1000, 0.2), silence(1000), tone(1000, 0.2)]);
    expect(loudness(levelled(paused, 0).slice(0, samplesOf(1000)))).toBeCloseTo(wanted, 1);
  });

  it('is never clipped', () => {
    const burst = joined([tone(2000, 0.1), tone(20, 1)]);
    expect(Math.max(...levelled(burst, 6))).toBeLessThan(32_767);
  });
});

describe('parts of a sentence', () => {
  it('are all of it, none too long, cut where breath is taken', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 200 }),
        fc.integer({ min: 10, max: 60 }),
        (text, longest) => {
          const parts = partsOf(text, longest);
          expect(parts.map((part) => part.text).join('')).toBe(text);
          for (const part of parts) {
            expect(part.text.length).toBeLessThanOrEqual(longest);
            expect(text.startsWith(part.text, part.start)).toBe(true);
          }
        },
      ),
    );
    const text = 'When the tide turned, the boats went out; nobody watched them go, but one.';
    expect(partsOf(text, 45).map((part) => part.text)).toEqual([
      'When the tide turned, the boats went out; ',
      'nobody watched them go, but one.',
    ]);
  });
});

describe('marks', () => {
  const heard = (...words: (readonly [form: string, frame: number])[]) =>
    words.map(([form, frame]) => ({ form, frame, phones: [] }));
  const at = (frame: number) => frame * 4;

  it('go word for word, and share the time of what is said otherwise', () => {
    const text = 'The M.I.T. paid £1,500 for it.';
    const said = heard(['the', 1], ['m', 10], ['d\\/', 20], ['i', 30], ['t', 40], ['paid', 50], ['1', 60]).concat(
      heard(['thnd\\/', 70], ['pounds', 80], ['for', 90], ['it', 100]),
    );
    expect(marksOf(text, said, at, 500).map(({ offset, atMs }) => [text.slice(offset).slice(0, 3), atMs])).toEqual([
      ['The', 4],
      ['M.I', 40],
      ['I.T', 120],
      ['T. ', 160],
      ['pai', 200],
      ['1,5', 240],
      ['500', 280],
      ['for', 360],
      ['it.', 400],
    ]);
  });

  it('are one for each word and never go back, whatever was heard', () => {
    const word = fc.constantFrom('a', 'b', 'c', 'd', '9');
    fc.assert(
      fc.property(fc.array(word, { maxLength: 30 }), fc.array(word, { maxLength: 30 }), (written, spoken) => {
        const text = written.join(' ');
        const said = spoken.map((form, n) => ({ form, frame: n * 5, phones: [] }));
        const marks = marksOf(text, said, at, 5000);
        expect(marks.map(({ offset }) => offset)).toEqual(wordsOf(text).map(({ offset }) => offset));
        marks.forEach(({ atMs }, n) => expect(atMs).toBeGreaterThanOrEqual(marks[n - 1]?.atMs ?? 0));
      }),
    );
  });

  it('are guessed by the characters where no times are known', () => {
    expect(guessedMarks('one two', 100, 800)).toEqual([
      { offset: 0, atMs: 100 },
      { offset: 4, atMs: 500 },
    ]);
  });
});

describe('what the engine’s queues say', () => {
  const item = (kind: string, more: number, ...data: number[]) => [kind.charCodeAt(0), more, 0, data.length, ...data];
  const phone = (id: number, frames: number) =>
    item('h', id, ...Array.from({ length: 5 }, (_, state) => [state === 0 ? frames : 0, 0, 0, 0, 0, 0]).flat());
  const SILENT = 92;
  const good = () => ({
    words: [...item('g', 0, 104, 105), ...item('p', 0), ...item('g', 0, 121, 111)],
    pronounced: [...item('w', 0, 1, 2), ...item('w', 0, 3)],
    syllables: [...item('b', 0), ...item('y', 0, 1), ...item('y', 0, 2), ...item('b', 0), ...item('y', 0, 3)],
    phones: [SILENT, 1, 2, SILENT, 3, SILENT].flatMap((id) => phone(id, 5)),
  });

  it('is when each word begins, silences between them counted', () => {
    expect(timingOf(good())).toEqual({
      words: [
        { form: 'hi', frame: 5, phones: [1, 2] },
        { form: 'yo', frame: 20, phones: [3] },
      ],
      frames: 30,
    });
  });

  it('is not believed where anything of it does not fit', () => {
    const without = (change: Partial<ReturnType<typeof good>>) => timingOf({ ...good(), ...change });
    expect(without({ pronounced: item('w', 0, 1, 2) })).toBeNull();
    expect(without({ syllables: [...item('y', 0, 1), ...item('y', 0, 2), ...item('y', 0, 3)] })).toBeNull();
    expect(without({ phones: [SILENT, 1, 2, 4].flatMap((id) => phone(id, 5)) })).toBeNull();
    expect(without({ phones: [SILENT, 1, 2].flatMap((id) => phone(id, 5)) })).toBeNull();
  });

  it('leaves out a word that is said with the next', () => {
    const words = [...item('g', 0, 97), ...item('g', 0, 98)];
    const timing = timingOf({
      words,
      pronounced: [...item('w', 0), ...item('w', 0, 3)],
      syllables: [...item('b', 0), ...item('b', 0), ...item('y', 0, 3)],
      phones: [SILENT, 3].flatMap((id) => phone(id, 2)),
    });
    expect(timing?.words).toEqual([{ form: 'b', frame: 2, phones: [3] }]);
  });
});
