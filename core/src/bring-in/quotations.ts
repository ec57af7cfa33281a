import * as chrono from 'chrono-node';
import { type ForeignHighlight, type HighlightFile, MAX_QUOTATION_LENGTH, NOTHING_SAID } from './foreign-highlight';

/**
 * Quotations as plain text, of whatever made it: told apart by how the file is built, not by who wrote it. Each has the quotation,
 * and where it says so the place in the source, the day on which it was taken, and what was written on it.
 *
 * - records between lines of one sign (`=====`): source, place and date, quotation
 * - one source at the top, then quotations with a line of place and date each, before them or after
 * - Markdown: headings, quotations as `>` or as list entries
 * - paragraphs, the last lines of each an address, a date, a dash with a title, or a place
 */
export function readQuotations(written: string): HighlightFile {
  const lines = written.split(/\r?\n/).map((line) => line.replace(/[\u200b\ufeff]/g, '').trim());
  if (lines.filter(isRule).length > 0 && lines.some(isPlaceLine)) return parted(lines);
  if (lines.some((line) => /^#{1,6}\s/.test(line)) && lines.some((line) => /^(?:>|[-*•]\s)/.test(line)))
    return markdown(lines);
  if (lines.filter(isPlaceLine).length > 1 && !partsOf(lines, isBlank)[0]?.some(isPlaceLine)) return ofOneSource(lines);
  return paragraphs(lines);
}

const isBlank = (line: string): boolean => line === '';
const isRule = (line: string): boolean => /^([=*_~─—-])\1{4,}$/.test(line);

/** Words for a place in a text and its number, in the languages that texts are read aloud in. */
const PLACE =
  /(?:(?<![\p{L}])(?:pages?|pp?\.|loc(?:ations?|\.)?|pos(?:ition|\.)?|seiten?|s\.|kapitel|chapters?|chap\.|ch\.|páginas?|pág\.|posición|emplacements?|pagin[ae]|posizion[ei]|capitol[oi]|capítulos?|chapitres?|abschnitt|sections?|part|teil)\s*#?(?:\d+|[ivxlc]+(?![\p{L}]))|§\s*\d+)(?:\s*[-–]\s*\d+)?|(?<!\d)\d{1,3}(?:[.,]\d+)?\s?%/giu;
const READERS = [chrono.en.strict, chrono.de.strict, chrono.fr.strict, chrono.es.strict, chrono.it.strict];
/** More than this stands in no line that only says where and when. In characters. */
const LONGEST_PLACE_LINE = 160;
/** So much may stand in such a line besides: “Highlight on”, “Markierung auf”, “added”. In letters. */
const MOST_BESIDES = 40;

/** Where and when: what a line says of both. */
interface PlaceAndDay {
  place: string;
  madeAt: number | null;
  /** What else stands in the line. */
  rest: string;
}

function placeAndDay(line: string): PlaceAndDay | null {
  if (line.length > LONGEST_PLACE_LINE || !/\d/.test(line)) return null;
  const places = [...line.matchAll(PLACE)].map(([place]) => place.trim());
  let rest = line.replace(PLACE, ' ');
  const date = dateIn(rest);
  if (date) rest = rest.replace(date.text, ' ');
  if (places.length === 0 && !date) return null;
  return { place: places.join(', '), madeAt: date?.at ?? null, rest: rest.replace(/[^\p{L}]+/gu, ' ').trim() };
}

const isPlaceLine = (line: string): boolean => {
  const said = placeAndDay(line);
  return said !== null && said.rest.length <= MOST_BESIDES && !/[.!?…]["”’»)]?$/.test(line.replace(PLACE, ''));
};

/** A day that is said in full; one without a year is none. A zone that is not said is taken for UTC, so that the day stays. */
function dateIn(text: string): { text: string; at: number } | null {
  if (!/\d{4}|\d[./]\d{1,2}[./]\d{2}/.test(text)) return null;
  const iso = /\d{4}-\d{2}-\d{2}(?:[T ]\d{2}:\d{2}(?::\d{2}(?:\.\d+)?)?(?:Z|[+-]\d{2}:?\d{2})?)?/.exec(text)?.[0];
  if (iso) {
    const at = Date.parse(/T|:/.test(iso) && !/Z|[+-]\d{2}:?\d{2}$/.test(iso) ? `${iso.replace(' ', 'T')}Z` : iso);
    return Number.isNaN(at) ? null : { text: iso, at };
  }
  for (const reader of READERS)
    for (const result of reader.parse(text, { instant: new Date(0), timezone: 0 }))
      if (['day', 'month', 'year'].every((part) => result.start.isCertain(part as 'day')))
        return { text: result.text, at: result.start.date().getTime() };
  return null;
}

/** Words by which a line of place says that what follows is the reader's own. */
const OWN =
  /(?<![\p{L}])(?:notes?|notiz(?:en)?|notas?|nota|remarques?|kommentare?|anmerkung(?:en)?|comments?|commento)(?![\p{L}])/iu;

function parted(lines: readonly string[]): HighlightFile {
  const file: HighlightFile = { highlights: [], faults: [] };
  for (const record of partsOf(lines, isRule)) {
    const said = record.filter((line) => line !== '');
    const at = said.findIndex(isPlaceLine);
    if (at === -1) {
      file.highlights.push(...paragraphs(record).highlights);
      continue;
    }
    const about = placeAndDay(said[at] ?? '');
    const isLast = at === said.length - 1 && at > 0;
    const title = isLast && at > 1 ? '' : said.slice(0, at).join(' ');
    const words = isLast && at > 1 ? said.slice(0, at) : said.slice(at + 1);
    if (!about) continue;
    if (words.length === 0)
      file.faults.push(`${[title, about.place].filter(Boolean).join(', ')}: no words stand there.`);
    else if (OWN.test(about.rest)) putNote(file, title, about, words.join('\n'));
    else push(file, { title, ...about }, words.join('\n'));
  }
  return file;
}

/** A note goes to the quotation of the same source that it stands by: at its place, or else just before it. */
function putNote(file: HighlightFile, title: string, { place, madeAt }: PlaceAndDay, note: string): void {
  const own = file.highlights.filter((each) => each.title === title);
  const numbers = place.match(/\d+/g) ?? [];
  const to = own.findLast((each) => numbers.some((n) => each.place.match(/\d+/g)?.includes(n))) ?? own.at(-1);
  if (to) to.note = [to.note, note].filter(Boolean).join('\n\n');
  else
    file.faults.push(
      `${[title, place, madeAt === null ? '' : new Date(madeAt).toISOString().slice(0, 10)].filter(Boolean).join(', ')}: a note that quotes nothing: ${note.slice(0, 200)}`,
    );
}

/** The last line that says something says whether places stand before their quotations or after. */
function ofOneSource(lines: readonly string[]): HighlightFile {
  const file: HighlightFile = { highlights: [], faults: [] };
  const blocks = partsOf(lines, isBlank);
  const isAfter = isPlaceLine(blocks.at(-1)?.at(-1) ?? '');
  const [title = '', ...by] = blocks[0] ?? [];
  const source = [title, ...by.map((line) => line.replace(/^by\s+/i, '')).map((author) => `(${author})`)]
    .join(' ')
    .trim();
  let open: { about: PlaceAndDay; blocks: string[][] } | null = null;
  const waiting: string[][] = [];
  const close = () => {
    if (!open) return;
    const last = open.blocks.at(-1);
    // A line by itself before the next place is a heading of the text, not part of what is quoted.
    if (open.blocks.length > 1 && last?.length === 1 && isHeading(last[0] ?? '')) open.blocks.pop();
    take(file, source, open.about, open.blocks);
  };
  for (const block of blocks.slice(1)) {
    let rest: string[] = [];
    for (const line of block) {
      const about = isPlaceLine(line) ? placeAndDay(line) : null;
      if (!about) {
        rest.push(line);
        continue;
      }
      if (isAfter) {
        take(file, source, about, [
          ...waiting.splice(0).filter((each) => each.length > 1 || !isHeading(each[0] ?? '')),
          rest,
        ]);
        rest = [];
      } else {
        if (rest.length > 0) open?.blocks.push(rest);
        rest = [];
        close();
        open = { about, blocks: [] };
      }
    }
    if (rest.length === 0) continue;
    if (isAfter) waiting.push(rest);
    else open?.blocks.push(rest);
  }
  close();
  return file;
}

function take(file: HighlightFile, title: string, about: PlaceAndDay, blocks: readonly string[][]): void {
  const words = blocks
    .filter((block) => block.length > 0)
    .map((block) => block.join('\n'))
    .join('\n\n');
  if (words === '') return;
  if (OWN.test(about.rest)) putNote(file, title, about, words);
  else push(file, { title, ...about }, words);
}

const isHeading = (line: string): boolean =>
  line.length <= 80 && !/[.!?…:;,]["”’»)]?$/.test(line) && !/^["“„«>]/.test(line);

function markdown(lines: readonly string[]): HighlightFile {
  const file: HighlightFile = { highlights: [], faults: [] };
  let title = '';
  let open: { words: string[]; isQuote: boolean } | null = null;
  const close = () => {
    if (open) ofEntry(file, title, open.words.join('\n'));
    open = null;
  };
  for (const line of lines) {
    const heading = /^(#{1,6})\s+(\S.*)$/.exec(line);
    const quoted = /^>\s?(.*)$/.exec(line);
    const entry = /^[-*•]\s+(\S.*)$/.exec(line);
    if (heading) {
      close();
      if (heading[1] === '#' || title === '') title = heading[2] ?? '';
    } else if (quoted) {
      if (!open?.isQuote) close();
      open ??= { words: [], isQuote: true };
      open.words.push(quoted[1] ?? '');
    } else if (entry) {
      close();
      open = { words: [entry[1] ?? ''], isQuote: false };
    } else if (line === '') close();
    else {
      close();
      const last = file.highlights.at(-1);
      const about = isPlaceLine(line.replace(/^[—–-]+\s*/, '')) ? placeAndDay(line) : null;
      if (last && about) Object.assign(last, { place: last.place || about.place, madeAt: last.madeAt ?? about.madeAt });
      else if (last) last.note = [last.note, line].filter(Boolean).join('\n\n');
    }
  }
  close();
  return file;
}

/** In characters. */
const MOST_BEHIND = 120;

/** Of an entry, what stands behind a dash or in brackets at its end may say where it is from. */
function ofEntry(file: HighlightFile, title: string, written: string): void {
  const last = written.slice(-MOST_BEHIND);
  const end = /(?:[—–]|\()([^()\n—–]{2,80})\)?$/.exec(last);
  const about = end && isPlaceLine(end[1] ?? '') ? placeAndDay(end[1] ?? '') : null;
  const words = about && end ? written.slice(0, written.length - last.length + end.index) : written;
  push(file, { title, place: about?.place ?? '', madeAt: about?.madeAt ?? null }, words);
}

function paragraphs(all: readonly string[]): HighlightFile {
  const file: HighlightFile = { highlights: [], faults: [] };
  for (const block of partsOf(all, isBlank)) {
    const lines = [...block];
    const found = { title: '', address: '', place: '', madeAt: null as number | null };
    while (lines.length > 1) {
      const last = lines.at(-1) ?? '';
      const title = /^[—–-]{1,2}\s*(\S.*)$/.exec(last)?.[1];
      const about = isPlaceLine(last) ? placeAndDay(last) : null;
      if (/^https?:\/\/\S+$/i.test(last)) found.address = last;
      else if (about && !title)
        Object.assign(found, { place: about.place || found.place, madeAt: about.madeAt ?? found.madeAt });
      else if (title) found.title = title;
      else break;
      lines.pop();
    }
    push(file, found, lines.join('\n'));
  }
  return file;
}

function push(
  file: HighlightFile,
  { title, place, madeAt, address = '' }: Pick<ForeignHighlight, 'title' | 'place' | 'madeAt'> & { address?: string },
  words: string,
): void {
  const quotation = words
    .replace(/^>\s?/gm, '')
    .trim()
    .replace(/^[“"„«](.*)[”"“»]$/su, '$1')
    .trim();
  if (quotation === '') return;
  file.highlights.push({
    ...NOTHING_SAID,
    ...{ title: title.trim(), place, madeAt, address },
    quotation: quotation.slice(0, MAX_QUOTATION_LENGTH),
  });
}

/** Runs of lines between those that part them; empty runs left out. */
function partsOf(lines: readonly string[], parts: (line: string) => boolean): string[][] {
  const found: string[][] = [[]];
  for (const line of lines)
    if (parts(line)) found.push([]);
    else found.at(-1)?.push(line);
  return found.filter((part) => part.some((line) => line !== ''));
}
