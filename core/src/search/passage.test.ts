import fc from 'fast-check';
import { alternativesOf, marksIn, passageOf, readQuery } from '.';

const marksOf = (written: string) =>
  readQuery(written, { now: 0, zoneMinutes: 0 }).words.map((word) => alternativesOf(word, ['en', 'de', 'ja']));
const shown = (text: string, written: string, language = 'en') => {
  const passage = passageOf(text, language, marksOf(written));
  return (
    passage && {
      text: passage.text,
      marked: passage.marks.map(({ start, end }) => passage.text.slice(start, end)),
      start: passage.start,
    }
  );
};

describe('a passage', () => {
  it('marks the words in the form in which they stand', () => {
    expect(shown('Larch lasts. The dredging of harbours ended.', 'dredge harbour')).toEqual({
      text: 'The dredging of harbours ended.',
      marked: ['dredging', 'harbours'],
      start: 13,
    });
  });

  it('is where most of what was looked for stands together', () => {
    const far = Array.from({ length: 60 }, (_, n) => `word${n}`).join(' ');
    const found = shown(`Larch here. ${far}. Then larch and oak. ${far}`, 'larch oak');
    expect(found?.marked).toEqual(['larch', 'oak']);
    expect(found?.text).toMatch(/^Then larch and oak/);
  });

  it('has no use for words in the next block', () => {
    const text = 'On eelgrass\n\nDredging it away.\n\nThe dredging of eelgrass was stopped.';
    expect(shown(text, 'eelgrass dredging')?.marked).toEqual(['dredging', 'eelgrass']);
  });

  it('stays in its block', () => {
    expect(shown('A heading\n\nThe larch grows.\n\nAnother block.', 'larch')?.text).toBe('The larch grows.');
  });

  it('marks a phrase as one, and its words alone not at all', () => {
    expect(shown('Brown water. Water was brown water.', '"brown water"')?.marked).toEqual([
      'Brown water',
      'brown water',
    ]);
  });

  it('marks what runs without spaces as one', () => {
    expect(shown('海の音を聞く。', '海の音', 'ja')?.marked).toEqual(['海の音']);
  });

  it('is none where nothing of it stands', () => {
    expect(shown('A text.', 'larch')).toBeNull();
    expect(shown('', 'larch')).toBeNull();
  });

  it('is a part of the text, with its marks inside, apart and in order', () => {
    const word = fc.constantFrom('larch', 'oak', 'tide.', 'moon', '\n\n', '潮の音', 'Oak');
    fc.assert(
      fc.property(
        fc.array(word),
        fc.constantFrom('larch', 'oak tide', '"larch oak"', '潮', 'mo*'),
        (words, written) => {
          const text = words.join(' ');
          const passage = passageOf(text, 'en', marksOf(written));
          const all = marksIn(text, 'en', marksOf(written));
          expect(passage === null).toBe(all.length === 0);
          if (!passage) return;
          expect(text.slice(passage.start, passage.start + passage.text.length)).toBe(passage.text);
          expect(passage.marks.length).toBeGreaterThan(0);
          let last = -1;
          for (const { start, end } of passage.marks) {
            expect(start).toBeGreaterThan(last);
            expect(end).toBeGreaterThan(start);
            expect(end).toBeLessThanOrEqual(passage.text.length);
            last = end;
          }
        },
      ),
    );
  });
});
