import { emptyInWords, rangeInWords } from './forecast-words';

const told = (low: number, middle: number, high: number, chance: number) =>
  emptyInWords({ weeks: [], emptyIn: { low, middle, high }, chance });

it.each([
  [0, 0, 0, 1, 'It is empty.'],
  [4.6, 6, 9.2, 1, 'At this pace it is empty in 5 to 9 weeks.'],
  [0.2, 0.4, 0.9, 1, 'At this pace it is empty in about a week.'],
  [7, 7, 7, 1, 'At this pace it is empty in about 7 weeks.'],
  [6, 20, Infinity, 0.7, 'At this pace it is empty in 6 weeks at the earliest, or only after a year.'],
  [6, 20, 51.8, 0.92, 'At this pace it is empty in 6 weeks at the earliest, or after about a year.'],
  [20, Infinity, Infinity, 0.3, 'At this pace it will hardly be empty within a year: in 3 of ten cases.'],
  [Infinity, Infinity, Infinity, 0.01, 'At this pace it will not be empty within a year.'],
])('what is empty in %d, %d, %d weeks in %d of all cases', (low, middle, high, chance, words) => {
  expect(told(low, middle, high, chance)).toBe(words);
});

it('minutes of some weeks are a range without what is rare', () => {
  expect(rangeInWords([0, 0, 0])).toBe('nothing');
  expect(rangeInWords([20, 20])).toBe('20 min');
  expect(rangeInWords([10, 20, 30, 40, 50, 60, 70, 80, 90, 100, 900])).toBe('20 to 100 min');
});
