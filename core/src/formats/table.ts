import Papa from 'papaparse';

/** What spreadsheets take for a formula, which may run programs (OWASP, "CSV Injection"); also what was marked as none. */
const FORMULA = /^'*[=+\-@\t\r]/;

/**
 * A table as text (RFC 4180), its first row the names of its columns. A cell that a spreadsheet would run gets an
 * apostrophe before it, by which spreadsheets show it as the text that it is; readTableRows takes it off again.
 */
export function writeTable(fields: readonly string[], data: readonly string[][], delimiter = ','): string {
  return Papa.unparse(
    { fields: [...fields], data: [...data] },
    { delimiter, newline: '\r\n', escapeFormulae: FORMULA },
  );
}

/** The rows of a table, its delimiter the likeliest of those given. */
export function readTableRows(written: string, delimiters: string[]): string[][] {
  const { data } = Papa.parse<string[]>(written, { skipEmptyLines: 'greedy', delimitersToGuess: delimiters });
  return data.map((row) => row.map((cell) => (FORMULA.test(cell) ? cell.replace(/^'/, '') : cell)));
}
