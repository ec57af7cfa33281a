import fc from 'fast-check';
import { findInText, foldText } from './find-in-text';

const TEXT = 'Épaves près de l’Île.\n\nDas Straßenschild; EPAVES, and 𝒜 epaves.';
const found = (words: string) => findInText(foldText(TEXT), words).map(({ start, end }) => TEXT.slice(start, end));

describe('finding in an article', () => {
  it('takes no heed of case and diacritics', () => {
    expect(found('epaves')).toEqual(['Épaves', 'EPAVES', 'epaves']);
    expect(found('l’ile')).toEqual(['l’Île']);
    expect(found('𝒜 ep')).toEqual(['𝒜 ep']);
  });

  it('waits for two letters', () => {
    expect(found('e')).toEqual([]);
    expect(found('  ')).toEqual([]);
  });

  it('finds every part of a text where it stands', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', 'é', 'B', ' ', '𝒜'), maxLength: 30 }),
        fc.nat(),
        fc.nat(),
        (text, a, b) => {
          const units = Array.from(text);
          const [from, to] = [a % (units.length + 1), b % (units.length + 1)].sort((x, y) => x - y) as [number, number];
          const part = units.slice(from, to).join('');
          const start = units.slice(0, from).join('').length;
          fc.pre(part.trim() === part && part.length >= 2 && foldText(part).folded.length >= 2);
          expect(findInText(foldText(text), part)).toContainEqual({ start, end: start + part.length });
        },
      ),
    );
  });
});
