import type { SpokenLanguage } from './languages/language';

/** Says what a part of a text that fits is said as; null leaves it as it is. See say. */
export type Claim = (pattern: RegExp, saying: (match: RegExpExecArray) => string | null) => void;

const LOW = '₀₁₂₃₄₅₆₇₈₉';
const HIGH = '⁰¹²³⁴⁵⁶⁷⁸⁹';
const valueOf = (digits: string, of: string): number =>
  Number(Array.from(digits, (digit) => of.indexOf(digit)).join(''));
/** Formulas that stand in running text with plain figures; common practice. */
const PLAIN_FORMULAS = /(?<![\p{L}\p{N}])(?:H2O2?|CO2|O2|O3|N2O?|NO2|SO2|CH4|NH3|H2|H2SO4|CaCO3)(?![\p{L}\p{N}])/gu;

/** Formulas of chemistry are spelled; powers and ratios have words of their own. */
export function claimFormulas(claim: Claim, table: SpokenLanguage): void {
  const spelled = (formula: string): string =>
    [...formula.matchAll(/\p{L}|[₀-₉]+|\d+/gu)]
      .map(([part]) =>
        /\p{L}/u.test(part) ? part.toUpperCase() : table.cardinal(/\d/.test(part) ? Number(part) : valueOf(part, LOW)),
      )
      .join(' ');
  claim(/(?<![\p{L}\p{N}])(?=[A-Za-z]*[₀-₉])(?:[A-Z][a-z]?[₀-₉]*)+(?![\p{L}\p{N}])/gu, ([formula]) => spelled(formula));
  claim(PLAIN_FORMULAS, ([formula]) => spelled(formula));
  // One letter or figure with a power: a longer word with a small figure has a footnote, and a unit has words of its own.
  claim(/(?<=(?<![\p{L}\p{N}])(?:\p{L}|\d+))([⁰¹²³⁴-⁹]+)/gu, ([power]) => ` ${table.power(valueOf(power, HIGH))}`);
  claim(/(?<=(?:^|[\s(])\d{1,3}):(?=\d{1,3}(?:[\s).,;]|$))/gu, ({ index, input }) => {
    // Two figures behind the colon are a time, unless there are too many for one.
    const [hour = '', minute = ''] = [
      /\d+$/.exec(input.slice(0, index))?.[0],
      /^\d+/.exec(input.slice(index + 1))?.[0],
    ];
    const isTime = minute.length === 2 && Number(hour) < 24 && Number(minute) < 60;
    return isTime ? null : ` ${table.ratio} `;
  });
}

const OF_PARTS =
  /(?<=(?:ratio of|ratio|scale of|scale|mixed|diluted|Verhältnis|Maßstab|gemischt|rapport de|échelle|proporción de|proporción|escala|rapporto di|rapporto|scala) )(\d{1,3}):(\d{1,3}(?:[.,  ]?\d{3})*)(?!\d)/giu;

/** Two numbers that would be a time, but for the word before them. */
export function claimMixtures(claim: Claim, table: SpokenLanguage): void {
  claim(OF_PARTS, ([, one, other = '']) =>
    [one, other.replace(/\D/g, '')].map((part) => table.cardinal(Number(part))).join(` ${table.ratio} `),
  );
}

/** What points to a footnote, and what a line's end has left in a word: nobody says them. */
export function claimMarks(claim: Claim): void {
  claim(/(?<=\p{L}{2,}[.,;:!?”"’)»]?)(?:[⁰¹²³⁴-⁹]+|[*†‡]+)(?!\p{L})/gu, () => '');
  claim(/(?<=\p{Ll})-[^\S\n]*\n\s*(?=\p{Ll})|\u00ad/gu, () => '');
}
