import {
  type ArchiveFaultCode,
  type ArchiveLook,
  clipped,
  type Dossier,
  type Feed,
  feedTitle,
  type Highlight,
  type Item,
  type Note,
  type Standing,
} from '../model';
import { noteText } from '../notes';
import type { Stored } from '../records';
import { titleOf } from './item-words';

const MOST_TITLE = 80;

/** What kinds of records are called, one and many. */
const KIND_NAMES: Readonly<Record<string, readonly [string, string]>> = {
  items: ['item', 'items'],
  activities: ['sitting', 'sittings'],
  feeds: ['feed', 'feeds'],
  highlights: ['highlight', 'highlights'],
  searches: ['kept search', 'kept searches'],
  notes: ['note', 'notes'],
  cards: ['card', 'cards'],
  silences: ['word not to be reminded by', 'words not to be reminded by'],
  pins: ['pin', 'pins'],
  dossiers: ['dossier', 'dossiers'],
  entries: ['thing in dossiers', 'things in dossiers'],
  copies: ['text', 'texts'],
  pictures: ['picture', 'pictures'],
};

/** What records of a kind are called, with a capital. @param plural of a kind of record; `copies` and `pictures` beside them */
function manyOf(plural: string): string {
  const many = KIND_NAMES[plural]?.[1] ?? plural;
  return many.charAt(0).toUpperCase() + many.slice(1);
}

const TITLES: Readonly<Record<string, (record: Stored) => string>> = {
  items: (record) => titleOf(record as Item),
  feeds: (record) => feedTitle(record as Feed),
  highlights: (record) => (record as Highlight).choices.passage.value.exact,
  notes: (record) => noteText(record as Note),
  dossiers: (record) => (record as Dossier).choices.title.value,
};

/** What a record is known by to its reader; the name of its kind where it has nothing of the sort. */
export function recordTitle(plural: string, record: Stored): string {
  const [line = ''] = (TITLES[plural]?.(record) ?? '').trim().split('\n');
  return line === '' ? (KIND_NAMES[plural]?.[0] ?? plural) : clipped(line, MOST_TITLE);
}

/** Why something of an archive cannot be brought in. */
export const ARCHIVE_FAULT_WORDS: Readonly<Record<ArchiveFaultCode, string>> = {
  unreadable: 'cannot be read',
  address: 'has no address that leads anywhere',
  damaged: 'is damaged',
  'belongs-nowhere': 'belongs to an item that is neither in the archive nor here',
};

/** Why a file is not taken for an archive, and what to do. */
export const NO_ARCHIVE_WORDS = {
  'not-packed': 'That is not a ZIP file, or not a whole one. Give the archive as you took it along from Dorvel.',
  'not-ours':
    'That ZIP file is not an archive of Dorvel. Pages, letters and lists come in under “Save”, “Choose files”.',
  newer: 'That archive is of a newer Dorvel than this server is. Update the server, and bring it in then.',
  'too-large': 'That archive is larger, unpacked, than any library may be. It was not opened.',
} as const;

/** How what differs stands, of two states of one thing. */
export const STANDING_WORDS: Readonly<Record<Standing, string>> = {
  new: 'new',
  same: 'the same',
  'newer-here': 'later here: stays as it is',
  'newer-there': 'later in the archive: becomes as it is there',
  both: 'changed in both: of each value the later one holds',
};

/**
 * What an archive has of each kind, a line a kind: "items: 3 new, 405 the same, 2 that differ".
 *
 * @param isIn whether it has been brought in
 */
export function archiveLines({ kinds }: ArchiveLook, isIn: boolean): string[] {
  const order = Object.keys(KIND_NAMES);
  const inOrder = [...kinds].sort((a, b) => order.indexOf(a.plural) - order.indexOf(b.plural));
  return inOrder.map(({ plural, standings }) => {
    const differing = standings['newer-here'] + standings['newer-there'] + standings.both;
    const parts = [
      [standings.new, isIn ? 'came in' : 'new'],
      [standings.same, isIn ? 'were here' : 'here already'],
      [differing, isIn ? 'joined with what was here' : 'that differ'],
    ] as const;
    const counted = parts
      .filter(([count]) => count > 0)
      .map(([count, what]) => `${count.toLocaleString('en-GB')} ${what}`);
    return `${manyOf(plural)}: ${counted.join(', ')}`;
  });
}

/** Whether there is anything in an archive that is not here. */
export function hasMore({ kinds }: ArchiveLook): boolean {
  return kinds.some(({ standings }) => standings.new + standings['newer-there'] + standings.both > 0);
}
