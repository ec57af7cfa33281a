/** A number as people write it: `1,234.50`, `1.234,50`, `£18`. */
export function numberIn(value: string): number | null {
  const written = /-?\d[\d.,  ']*/.exec(value)?.[0]?.replace(/[  ']|[.,]$/g, '');
  if (!written) return null;
  const lastMark = Math.max(written.lastIndexOf('.'), written.lastIndexOf(','));
  const isDecimal = lastMark !== -1 && (written.length - lastMark - 1 !== 3 || /^0?[.,]|[.,]\d+[.,]/.test(written));
  const number = isDecimal
    ? Number(`${written.slice(0, lastMark).replace(/[.,]/g, '')}.${written.slice(lastMark + 1)}`)
    : Number(written.replace(/[.,]/g, ''));
  return Number.isFinite(number) ? number : null;
}
