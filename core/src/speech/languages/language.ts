/** A quantity's word: for one, and for any other number. */
export type CountWords = readonly [one: string, many: string];

/** How a language says what is written short. One table a language; `say.ts` has the rules that use them. */
export interface SpokenLanguage {
  cardinal(value: number | bigint): string;
  /** A number as it is said before what it counts: ein Euro, una hora. */
  counting(value: number | bigint, noun: string): string;
  /** A number as it is said before a word, where it bends by what it counts: doscientas páginas. */
  agreeing?(said: string, next: string): string;
  /**
   * @param before the two words that stand before it, where the form depends on them
   * @param written as it stands in the text, with its sign
   */
  ordinal(value: number, before: string, written?: string): string;
  /** Says a year, as it is said in dates. */
  year(value: number): string;
  /** `.` or `,`: what stands before the decimals; the other one, or a space, stands between thousands. */
  decimalSign: '.' | ',';
  point: string;
  /** True where the decimals are said one by one: "three point one four". */
  decimalsOneByOne: boolean;
  minus: string;
  /** Between the ends of a range: 12–14. */
  to: string;
  /** A multiplier with what it counts, where a word stands between the two. */
  manyOf?(multiplier: string, noun: string): string;
  /** Between the two numbers of a ratio: 3:1. */
  ratio: string;
  /** What is said behind a letter or number with a small one above it: x². */
  power(value: number): string;
  /** Written ordinals with the value as the first group. */
  ordinalSign: RegExp;
  /** A day with its month, as the language writes it: how both are said. `month` is 1 to 12. */
  date(day: number, month: number, year: number | null): string;
  /** In a written date of three numbers, which is the first: 25/11/2026. */
  dateOrder: 'day' | 'month';
  months: readonly string[];
  time(hour: number, minute: number): string;
  /**
   * Abbreviations as written, with their full stops, to what is said. A space at the end stands for a name or a
   * number that has to follow, a `#` for a number.
   */
  abbreviations: Readonly<Record<string, string>>;
  /** Signs of money, before or behind the amount, to the words of the whole and of its hundredth. */
  money: Readonly<Record<string, { whole: CountWords; hundredth?: CountWords }>>;
  /** Multipliers behind an amount of money or alone: "3.5 million", "$3m". */
  multipliers: Readonly<Record<string, string>>;
  units: Readonly<Record<string, CountWords>>;
  fractions: Readonly<Record<string, string>>;
  and: string;
  at: string;
  dot: string;
  dash: string;
  underscore: string;
  /** Words behind which a Roman numeral counts things: Chapter IV. */
  counted: readonly string[];
  /** Signs between other words to what is said. */
  signs: Readonly<Record<string, string>>;
  /** What is said of a decade, where the language names them by their number: 1980s. */
  decade?(value: number): string;
  /** What is said behind a ruler's name: Louis XIV. */
  regnal(value: number): string;
  /** Centuries with a Roman numeral before the word: XIXe siècle. */
  century?: RegExp;
  /** What is said around the text itself. */
  frame: {
    heading: string;
    picture: string;
    table: string;
    columns: CountWords;
    rows: CountWords;
    code: string;
  };
}
