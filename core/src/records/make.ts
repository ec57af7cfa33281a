import {
  type Activity,
  type Card,
  type Dossier,
  type DossierEntry,
  type EntryChoices,
  type EntryPart,
  type FactColumn,
  type Feed,
  type GivenText,
  type Highlight,
  type HighlightKind,
  type HowMuch,
  type Item,
  type MarkedPassage,
  NEVER,
  type Note,
  type Pin,
  type PinSubject,
  type Recall,
  type SavedSearch,
  type Scope,
  type Silence,
  type Silenced,
  type Spans,
  type TextAnchor,
  type WordPutRight,
} from '../model';
import { seenIn } from '../notes';
import type { ActivityMutation } from './activity';
import type { CardChanges, CardMutation } from './card';
import type { DossierChanges, DossierMutation, EntryChanges, EntryMutation } from './dossier';
import type { FeedChanges, FeedMutation } from './feed';
import type { HighlightChanges, HighlightMutation } from './highlight';
import type { ItemChoices, ItemMutation } from './item';
import type { NoteChanges, NoteMutation } from './note';
import type { PinMutation } from './pin';
import { stampsOf } from './registers';
import type { SearchMutation } from './search';
import type { SilenceMutation } from './silence';

/** What the making of changes needs from outside. */
interface Makings {
  /** See core/sync. */
  clock: { next(...replaced: readonly string[]): string };
  newId(): string;
  /** Wall clock in milliseconds. */
  now(): number;
}

/** What is new about something that is saved. */
interface Saving {
  address: string;
  howMuch?: HowMuch;
  /** When, where it was saved elsewhere before: milliseconds since 1970. Now where nothing is said. */
  savedAt?: number;
}

/** Tags by key (see tagKey): as the reader writes them, or null to take one off. */
export type TagChanges = Readonly<Record<string, string | null>>;

/** Where a reader is in a text, and what of it went by ear since it was said last. */
interface Place {
  furthest: number;
  position: TextAnchor;
  heard: Spans;
}

export type ChangeMaker = ReturnType<typeof changeMaker>;

/**
 * Makes changes, the same ones on the devices, in the extension and on the server. A change of something that is known
 * wins over what it replaces, whatever the clock of who wrote that.
 */
export function changeMaker({ clock, newId, now }: Makings) {
  const base = (replaced: object = {}) => ({ id: newId(), stamp: clock.next(...stampsOf(replaced)) });
  return {
    save: ({ address, howMuch, savedAt = now() }: Saving): Extract<ItemMutation, { type: 'save' }> => ({
      ...base(),
      type: 'save',
      itemId: newId(),
      address,
      savedAt,
      ...(howMuch ? { howMuch } : {}),
    }),
    choose: (itemId: string, set: ItemChoices, known?: Item): ItemMutation => ({
      ...base(known?.choices),
      type: 'choose',
      itemId,
      set,
    }),
    tag: (itemId: string, set: TagChanges, known?: Item): ItemMutation => ({
      ...base(known?.tags),
      type: 'tag',
      itemId,
      set,
    }),
    putRight: (itemId: string, set: Readonly<Record<string, WordPutRight>>, known?: Item): ItemMutation => ({
      ...base(known?.putRight),
      type: 'put-right',
      itemId,
      set,
    }),
    progress: (itemId: string, place: Place, known?: Item): ItemMutation => ({
      id: newId(),
      stamp: clock.next(known?.progress.position?.at ?? NEVER),
      type: 'progress',
      itemId,
      ...place,
    }),
    refetch: (itemId: string): ItemMutation => ({ ...base(), type: 'refetch', itemId }),
    provide: (itemId: string, given: GivenText): ItemMutation => ({
      ...base(),
      type: 'provide',
      itemId,
      given,
    }),
    activity: (activity: Activity): ActivityMutation => ({
      ...base(),
      type: 'activity',
      itemId: activity.itemId,
      activity,
    }),
    follow: (feedId: string, address: string, known?: Feed): FeedMutation => ({
      ...base(known?.choices),
      type: 'follow',
      feedId,
      address,
      followedAt: now(),
    }),
    changeFeed: (feedId: string, set: FeedChanges, known?: Feed): FeedMutation => ({
      ...base(known?.choices),
      type: 'feed',
      feedId,
      set,
    }),
    highlight: (
      itemId: string,
      kind: HighlightKind,
      passage: MarkedPassage,
      madeAt = now(),
    ): Extract<HighlightMutation, { type: 'mark' }> => ({
      ...base(),
      type: 'mark',
      itemId,
      highlightId: newId(),
      madeAt,
      kind,
      passage,
    }),
    changeHighlight: ({ id: highlightId, itemId, choices }: Highlight, set: HighlightChanges): HighlightMutation => ({
      ...base(choices),
      type: 'change-mark',
      itemId,
      highlightId,
      set,
    }),
    keepSearch: (written: string, scope: Scope): SearchMutation => ({
      ...base(),
      type: 'search',
      searchId: newId(),
      madeAt: now(),
      set: { written, scope, removed: false },
    }),
    /** @param silenceId made from what is silenced, so that two devices mean one record */
    silence: (silenceId: string, what: Silenced, silenced: boolean, known?: Silence): SilenceMutation => ({
      ...base(known?.choices),
      type: 'silence',
      silenceId,
      madeAt: known?.madeAt ?? now(),
      what: known?.what ?? what,
      silenced,
    }),
    /** @param pinId of what is pinned */
    pin: (pinId: string, of: PinSubject, pinned: boolean, known?: Pin): PinMutation => ({
      ...base(known?.choices),
      type: 'pin',
      pinId,
      madeAt: known?.madeAt ?? now(),
      of: known?.of ?? of,
      pinned,
    }),
    /** Keeps a search no longer, or again. */
    removeSearch: ({ id: searchId, madeAt, choices }: SavedSearch, removed: boolean): SearchMutation => ({
      ...base(choices),
      type: 'search',
      searchId,
      madeAt,
      set: { written: choices.written.value, scope: choices.scope.value, removed },
    }),
    /** @param subject with an id for the note that an item or a highlight has a field for, see ownNote */
    note: (
      { id: noteId = newId(), itemId: noteItemId, on }: Pick<Note, 'itemId' | 'on'> & Partial<Pick<Note, 'id'>>,
      set: NoteChanges,
      madeAt = now(),
    ): NoteMutation => ({
      ...base(),
      type: 'write',
      noteId,
      madeAt,
      noteItemId,
      on,
      set,
      sees: {},
    }),
    /** @param note as the reader saw it when they began: what was written elsewhere meanwhile stays */
    changeNote: (
      { id: noteId, madeAt, itemId: noteItemId, on, choices, versions }: Note,
      set: NoteChanges,
    ): NoteMutation => ({
      id: newId(),
      stamp: clock.next(...stampsOf(choices), ...versions.map(({ at }) => at)),
      type: 'write',
      noteId,
      madeAt,
      noteItemId,
      on,
      set,
      ...(set.text === undefined ? {} : { sees: seenIn(versions) }),
    }),
    card: (
      source: Card['source'],
      sides: { front: string; back: string },
    ): Extract<CardMutation, { type: 'card' }> => ({
      ...base(),
      type: 'card',
      cardId: newId(),
      madeAt: now(),
      source,
      set: sides,
    }),
    changeCard: ({ id: cardId, madeAt, source, choices }: Card, set: CardChanges): CardMutation => ({
      ...base(choices),
      type: 'card',
      cardId,
      madeAt,
      source,
      set,
    }),
    dossier: (set: DossierChanges): DossierMutation => ({
      ...base(),
      type: 'dossier',
      dossierId: newId(),
      madeAt: now(),
      set,
      columns: {},
      sees: {},
    }),
    /** @param dossier its words as the reader saw them when they began: what was written elsewhere meanwhile stays */
    changeDossier: (
      { id: dossierId, madeAt, choices, columns: known, words }: Dossier,
      set: DossierChanges,
      columns: Readonly<Record<string, FactColumn>> = {},
    ): DossierMutation => {
      const written = [...words.introduction, ...words.closing];
      return {
        id: newId(),
        stamp: clock.next(...stampsOf(choices), ...stampsOf(known), ...written.map(({ at }) => at)),
        type: 'dossier',
        dossierId,
        madeAt,
        set,
        columns,
        ...(set.introduction === undefined && set.closing === undefined ? {} : { sees: seenIn(written) }),
      };
    },
    entry: (
      dossierId: string,
      part: EntryPart,
      set: Partial<EntryChoices> & Pick<EntryChoices, 'rank'>,
    ): EntryMutation => ({
      ...base(),
      type: 'entry',
      entryId: newId(),
      dossierId,
      madeAt: now(),
      part,
      set,
      cells: {},
    }),
    changeEntry: (
      { id: entryId, dossierId, madeAt, part, choices, cells: known }: DossierEntry,
      set: EntryChanges,
      cells: Readonly<Record<string, string | null>> = {},
    ): EntryMutation => ({
      ...base({ ...choices, ...known }),
      type: 'entry',
      entryId,
      dossierId,
      madeAt,
      part,
      set,
      cells,
    }),
    recall: (cardId: string, recall: Recall): CardMutation => ({ ...base(), type: 'recall', cardId, recall }),
  };
}
