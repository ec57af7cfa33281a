import { strandLength, strandParts } from '.';

describe('strandLength', () => {
  it('tells 2, 5, 15 and 60 minutes apart by an eighth of the room or more, and is full at an hour', () => {
    const lengths = [2, 5, 15, 60].map(strandLength);
    for (let i = 1; i < lengths.length; i++) expect((lengths[i] ?? 0) - (lengths[i - 1] ?? 0)).toBeGreaterThan(0.125);
    expect([strandLength(60), strandLength(600)]).toEqual([1, 1]);
    expect(strandLength(0)).toBeGreaterThan(0);
  });
});

describe('the parts of a strand', () => {
  it('are what was passed, without a gap, told apart by eyes and ears', () => {
    expect(
      strandParts(0.6, [
        [100, 300],
        [500, 900],
      ]),
    ).toEqual([
      { from: 0, to: 0.1, by: 'eyes' },
      { from: 0.1, to: 0.3, by: 'ears' },
      { from: 0.3, to: 0.5, by: 'eyes' },
      { from: 0.5, to: 0.6, by: 'ears' },
    ]);
    expect(strandParts(0, [[0, 500]])).toEqual([]);
    expect(strandParts(1, [])).toEqual([{ from: 0, to: 1, by: 'eyes' }]);
  });
});

// An Inbox is emptied about once a week (common practice).
