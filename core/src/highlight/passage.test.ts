import fc from 'fast-check';
import { passageAt, placePassage } from './passage';

const COPY = '019a0000-0000-7000-8000-000000000001';
const TEXT =
  'The winter the ferry stood still, nobody on Skerrow had bread for a week. The baker had flour, and the ' +
  'miller had grain, but the yeast came over the sound.\n\nWhen the ferry ran again in March, it carried forty ' +
  'sacks, two goats, and the vicar. The baker had flour, as I said. He had no patience.';
const marked = (words: string, nth = 0) => {
  let start = TEXT.indexOf(words);
  for (let n = 0; n < nth; n++) start = TEXT.indexOf(words, start + 1);
  return passageAt(TEXT, start, start + words.length, COPY);
};
const found = (text: string, passage: ReturnType<typeof marked>) => {
  const placed = placePassage(text, passage);
  return placed && text.slice(placed.start, placed.end);
};

describe('a marked passage', () => {
  it('is found where it is', () => {
    const passage = marked('forty sacks, two goats');
    expect(placePassage(TEXT, passage)).toEqual({
      start: passage.start,
      end: (passage.start ?? 0) + passage.exact.length,
      by: 'words',
    });
  });

  it('moves along with its text', () => {
    const passage = marked('the yeast came over the sound');
    const later = `A foreword of the editor’s.\n\n${TEXT}`;
    expect(placePassage(later, passage)?.start).toBe((passage.start ?? 0) + later.length - TEXT.length);
  });

  it('is told from the same words elsewhere by what stands around it', () => {
    const second = marked('The baker had flour', 1);
    const later = `New: ${TEXT}`;
    expect(placePassage(later, second)?.start).toBe(later.lastIndexOf('The baker had flour'));
  });

  it('is found though some of its words were changed', () => {
    const passage = marked('it carried forty sacks, two goats, and the vicar');
    expect(found(TEXT.replace('forty sacks', 'fifty sacks'), passage)).toBe(
      'it carried fifty sacks, two goats, and the vicar',
    );
  });

  it('is lost rather than put in the wrong place', () => {
    const first = marked('The baker had flour');
    const without = TEXT.replace(
      'The baker had flour, and the miller had grain, but the yeast came over the sound.',
      '',
    );
    expect(found(without, first)).toBeNull();
    expect(found('Nothing of all that stands here any more.', first)).toBeNull();
    expect(found(TEXT.replaceAll('ferry', 'boat'), marked('the'))).not.toBeUndefined();
    expect(found('Something else, and the rest.', marked('the'))).toBeNull();
  });

  it('is found on a live page by its words, without a place', () => {
    const passage = { ...marked('the yeast came over the sound'), start: null, copyId: null };
    expect(found(`Menu Home About ${TEXT} Subscribe now`, passage)).toBe(passage.exact);
  });

  it('that comes from elsewhere without its surroundings is found when it stands there once', () => {
    const bare = (exact: string) => ({ exact, prefix: '', suffix: '', start: null, copyId: null });
    expect(found(TEXT, bare('forty sacks, two goats'))).toBe('forty sacks, two goats');
    expect(found(TEXT, bare('the'))).toBeNull();
    expect(found(`${TEXT} ${TEXT}`, bare('forty sacks, two goats'))).toBeNull();
  });
});

describe('a passage of a table', () => {
  const row = (day: number, hour: string, range: string) => `${day} December\t${hour}\t${range} m`;
  const TABLE = [row(8, '4.24', '3.6'), row(9, '5.13', '4.1'), row(10, '6.50', '4.4')].join('\n\n');
  const passage = passageAt(TABLE, 0, TABLE.length, COPY);

  it('is lost, where only rows with other numbers are left', () => {
    const others = [row(1, '11.07', '2.4'), row(2, '11.56', '2.0'), row(3, '0.45', '1.9')].join('\n\n');
    expect(placePassage(`The next days\n\n${others}\n\nAnd so on.`, passage)).toBeNull();
  });

  it('is found where one of its numbers was put right', () => {
    const mended = TABLE.replace('5.13', '5.15');
    expect(found(`The next days\n\n${mended}\n\nAnd so on.`, passage)).toBe(mended);
  });
});

it('any part of a text is found in it, exactly', () => {
  fc.assert(
    fc.property(fc.nat(TEXT.length - 2), fc.integer({ min: 1, max: 120 }), (start, length) => {
      const end = Math.min(TEXT.length, start + length);
      const placed = placePassage(TEXT, passageAt(TEXT, start, end, COPY));
      expect(placed).toMatchObject({ start, end });
    }),
    { numRuns: 500 },
  );
});

it('never throws, whatever the text has become', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 300, unit: 'grapheme' }), (other) => {
      const placed = placePassage(other, marked('forty sacks, two goats, and the vicar'));
      expect(placed === null || placed.end <= other.length).toBe(true);
    }),
  );
});
