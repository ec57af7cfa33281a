/** Where the sheet is that names the fonts; see scripts/build.mjs. */
const SHEET = '/fonts/fonts.css';

/** Has the fonts come, behind what is drawn first: nothing waits for them, and the words change their face when they are here. */
export function bringFonts(): void {
  if (typeof document === 'undefined' || document.querySelector(`link[rel=stylesheet][href="${SHEET}"]`)) return;
  const sheet = document.createElement('link');
  sheet.rel = 'stylesheet';
  sheet.href = SHEET;
  document.head.append(sheet);
}
