import { z } from 'zod';
import type {
  Activity,
  Card,
  Dossier,
  DossierEntry,
  Feed,
  Highlight,
  Item,
  Note,
  Pin,
  SavedSearch,
  Silence,
} from '../model';
import { activityKind, type ActivityMutation } from './activity';
import { cardKind, type CardMutation } from './card';
import { dossierKind, type DossierMutation, entryKind, type EntryMutation } from './dossier';
import { feedKind, type FeedMutation } from './feed';
import { highlightKind, type HighlightMutation } from './highlight';
import { itemKind, type ItemMutation } from './item';
import type { Change, Kind, Stored } from './kind';
import { noteKind, type NoteMutation } from './note';
import { pinKind, type PinMutation } from './pin';
import { searchKind, type SearchMutation } from './search';
import { silenceKind, type SilenceMutation } from './silence';

/** Every change that can be made. Applied at once on the device, then sent; see core/sync. */
export type Mutation =
  | ItemMutation
  | ActivityMutation
  | FeedMutation
  | HighlightMutation
  | SearchMutation
  | NoteMutation
  | CardMutation
  | SilenceMutation
  | PinMutation
  | DossierMutation
  | EntryMutation;

/** The kinds of record that there are. */
export interface Registry {
  readonly kinds: readonly Kind[];
  /** Any change to a record of these kinds. */
  readonly Mutation: z.ZodType<Change>;
  /** @throws Error when no kind has that name */
  named(name: string): Kind;
  /** The kind that a change is about. @throws Error when it is about none of these */
  of(change: Pick<Change, 'type'>): Kind;
  /** Tells sets of kinds, and of their versions, apart. */
  readonly fingerprint: string;
}

/** @throws Error when two kinds share a name, a plural or a type of change */
export function createRegistry(kinds: readonly Kind[]): Registry {
  const byName = new Map<string, Kind>();
  const byType = new Map<string, Kind>();
  const add = (to: Map<string, Kind>, key: string, kind: Kind) => {
    if (to.has(key)) throw new Error(`two kinds of record are called ${key}`);
    to.set(key, kind);
  };
  for (const kind of kinds) {
    for (const name of new Set([kind.name, kind.plural])) add(byName, name, kind);
    for (const type of kind.types) add(byType, type, kind);
  }
  const found = (kind: Kind | undefined, what: string): Kind => {
    if (!kind) throw new Error(`no kind of record for ${what}`);
    return kind;
  };
  return {
    kinds,
    Mutation: z.discriminatedUnion('type', kinds.map(({ mutation }) => mutation) as never),
    named: (name) => found(byName.get(name), name),
    of: ({ type }) => found(byType.get(type), `the change ${type}`),
    fingerprint: kinds.map(({ name, version }) => `${name} ${version}`).join(', '),
  };
}

/** All kinds of record. Highlights, notes and cards come after the items that they belong to. */
export const REGISTRY = createRegistry([
  itemKind,
  activityKind,
  feedKind,
  highlightKind,
  searchKind,
  noteKind,
  cardKind,
  silenceKind,
  pinKind,
  dossierKind,
  entryKind,
]);

/** Any change, parsed. */
export const Mutation = REGISTRY.Mutation as z.ZodType<Mutation>;

/** Records by the plurals of their kinds. */
export interface Records {
  readonly items: readonly Item[];
  readonly activities: readonly Activity[];
  readonly feeds: readonly Feed[];
  readonly highlights: readonly Highlight[];
  readonly searches: readonly SavedSearch[];
  readonly notes: readonly Note[];
  readonly cards: readonly Card[];
  readonly silences: readonly Silence[];
  readonly pins: readonly Pin[];
  readonly dossiers: readonly Dossier[];
  readonly entries: readonly DossierEntry[];
  readonly [plural: string]: readonly Stored[] | undefined;
}
