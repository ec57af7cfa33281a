/** An ISO 8601 date, from that or from another form that dates take in metadata; null if it is not one. */
export function isoDate(value: string | null): string | null {
  if (!value) return null;
  const trimmed = value.trim();
  if (/^\d{4}-\d{2}-\d{2}([T ]\d{2}:\d{2}.*)?$/.test(trimmed)) {
    const iso = trimmed.replace(' ', 'T').replace(/\s+/g, '');
    return Number.isNaN(Date.parse(iso)) ? null : iso.slice(0, 40);
  }
  if (/^\d{4}[/.]\d{1,2}[/.]\d{1,2}$/.test(trimmed)) {
    const [year = '', month = '', day = ''] = trimmed.split(/[/.]/);
    return isoDate(`${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`);
  }
  if (/^\d{8}$/.test(trimmed)) return isoDate(`${trimmed.slice(0, 4)}-${trimmed.slice(4, 6)}-${trimmed.slice(6)}`);
  // RFC 2822 and "3 November 2026": without a stated zone they are read as UTC, so that the day stays the day.
  const spelled = /[+-]\d{4}|\b(?:GMT|UTC|[ECMP][SD]T)\b|Z$/.test(trimmed) ? trimmed : `${trimmed} UTC`;
  const time = /\d{4}/.test(trimmed) && /\p{L}{3}/u.test(trimmed) ? Date.parse(spelled) : NaN;
  return Number.isNaN(time) ? null : new Date(time).toISOString().replace(/T00:00:00\.000Z$/, '');
}

/**
 * An ISO 8601 duration (`PT1H20M`, `P2D`) in seconds; null if it is not one. Months and years have no length of their own
 * and are refused.
 */
export function isoDurationSeconds(value: string | null): number | null {
  const parts = /^P(?:(\d+)W)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:[.,]\d+)?)S)?)?$/i.exec(
    value?.trim() ?? '',
  );
  if (!parts || !/\d/.test(parts[0])) return null;
  const [weeks, days, hours, minutes, seconds] = parts
    .slice(1)
    .map((each) => Number((each as string | undefined)?.replace(',', '.') ?? 0)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  return ((weeks * 7 + days) * 24 + hours) * 3600 + minutes * 60 + seconds;
}
