const VALUES: Readonly<Record<string, number>> = { I: 1, V: 5, X: 10, L: 50, C: 100 };

/** Rulers' names that are numbered, in the spellings of the languages that have a table; common practice. */
export const RULERS: readonly string[] = (
  'Henry Charles George Edward Elizabeth James William Richard Louis Mary John Paul Pius Benedict Gregory Leo Clement Innocent ' +
  'Urban Philip Francis Frederick Alexander Nicholas Peter Catherine Ivan Christian Gustav Haakon Olav Napoleon Otto Ptolemy Darius ' +
  'Wilhelm Friedrich Ludwig Karl Heinrich Franz Ferdinand Leopold Philipp Franz-Joseph ' +
  'Henri François Philippe Napoléon Léopold ' +
  'Carlos Felipe Alfonso Fernando Isabel Juan Pablo ' +
  'Enrico Carlo Giorgio Edoardo Elisabetta Luigi Vittorio Emanuele Umberto Giovanni Paolo Pio Benedetto Gregorio Leone Clemente Innocenzo Urbano Filippo Francesco Federico Alessandro Napoleone'
).split(' ');

/** True for a number of up to 399 as the Romans' rules write it, in either case. */
export function isRoman(written: string): boolean {
  return written !== '' && /^(?:C{0,3})(?:XC|XL|L?X{0,3})(?:IX|IV|V?I{0,3})$/i.test(written);
}

/** @param written a Roman numeral, see isRoman */
export function romanValue(written: string): number {
  const values = Array.from(written.toUpperCase(), (letter) => VALUES[letter] ?? 0);
  return values.reduce((sum, value, at) => sum + (value < (values[at + 1] ?? 0) ? -value : value), 0);
}
