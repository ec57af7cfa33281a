import type { Echo } from '@dorvel/core/echo';

/**
 * Echoes where they stand in a text that may be without some blocks of the one in which they were found; those that stood
 * only in these are left out.
 */
export function placedIn(text: string, echoes: readonly Echo[]): readonly Echo[] {
  return echoes
    .flatMap((echo) => {
      if (text.startsWith(echo.form, echo.start)) return [echo];
      const start = text.indexOf(echo.form);
      return start === -1 ? [] : [{ ...echo, start, end: start + echo.form.length }];
    })
    .sort((a, b) => a.start - b.start);
}
