import { passageAt } from '@dorvel/core/highlight';
import type { Highlight, HighlightKind, Note } from '@dorvel/core/model';
import { isLive, liveText, noteText, ownNote } from '@dorvel/core/notes';
import { HIGHLIGHT_KIND_WORDS } from '@dorvel/core/wording';
import type { PlacedHighlight } from '@/article/at-highlight';
import {
  addHighlight,
  changeHighlight,
  changeNote,
  highlightsNowIn,
  ownNoteOf,
  writeOwnNote,
} from '@/device/store/changes';
import { tick } from '@/ui/haptics';
import { useNotices } from '@/ui/notices';
import { placeHighlights } from './use-highlights-in-text';
import type { SelectedText } from './use-selected-text';

/** What marking a part of a text does: a new highlight, or one of the same kind there is that grows over it. */
export type Marking =
  { grows: null; part: SelectedText } | { grows: Highlight; absorbs: Highlight[]; part: SelectedText };

/**
 * A part that overlaps highlights of its kind becomes one with them; those of other kinds stay beside it: a passage can be
 * both a quote and a doubt.
 */
export function markingOf(part: SelectedText, kind: HighlightKind, marks: readonly PlacedHighlight[]): Marking {
  const touched = marks.flatMap(({ mark: each, placed }) =>
    placed && each.choices.kind.value === kind && placed.start < part.end && part.start < placed.end
      ? [{ mark: each, placed }]
      : [],
  );
  const [first, ...others] = touched;
  if (!first) return { grows: null, part };
  return {
    grows: first.mark,
    absorbs: others.map(({ mark: each }) => each),
    part: {
      start: Math.min(part.start, ...touched.map(({ placed }) => placed.start)),
      end: Math.max(part.end, ...touched.map(({ placed }) => placed.end)),
    },
  };
}

let before: Promise<unknown> = Promise.resolve();

/**
 * Marks a part of an item's text, says so, and offers to take it back. Marks are made one behind the other, each with those
 * before it in view, however quickly they follow: one that touches another grows it also before that one is shown.
 *
 * @returns the highlight's id
 */
export function highlightPart(
  itemId: string,
  copyId: string,
  text: string,
  kind: HighlightKind,
  part: SelectedText,
): Promise<string> {
  const marked = before.then(async () => {
    const marks = placeHighlights(text, await highlightsNowIn(itemId));
    return record(itemId, copyId, text, kind, markingOf(part, kind, marks));
  });
  before = marked.catch(() => {
    // Whoever asked for it is told; the next one is made all the same.
  });
  return marked;
}

async function record(
  itemId: string,
  copyId: string,
  text: string,
  kind: HighlightKind,
  marking: Marking,
): Promise<string> {
  const passage = passageAt(text, marking.part.start, marking.part.end, copyId);
  const { show } = useNotices.getState();
  const words = `Marked: ${HIGHLIGHT_KIND_WORDS[kind]}.`;
  if (marking.grows === null) {
    tick();
    const id = await addHighlight(itemId, kind, passage);
    show({
      text: words,
      action: { label: 'Undo', press: () => void changeHighlight(id, { removed: true }) },
    });
    return id;
  }
  const { grows, absorbs } = marking;
  // What was written on those that become one with it is not lost.
  const undoNotes = await joinNotes(grows, absorbs);
  const asItWas = { passage: grows.choices.passage.value };
  await changeHighlight(grows.id, { passage });
  for (const each of absorbs) await changeHighlight(each.id, { removed: true });
  show({
    text: words,
    action: {
      label: 'Undo',
      press: () => {
        void changeHighlight(grows.id, asItWas);
        for (const each of absorbs) void changeHighlight(each.id, { removed: false });
        undoNotes();
      },
    },
  });
  return grows.id;
}

/** Puts the notes of highlights that become one with another behind its own. @returns what takes it back */
async function joinNotes(grows: Highlight, absorbs: readonly Highlight[]): Promise<() => void> {
  const own = await ownNoteOf(grows.id);
  const others = (await Promise.all(absorbs.map(({ id }) => ownNoteOf(id)))).filter(
    (note) => note !== null && isLive(note),
  ) as Note[];
  if (others.length === 0) return () => {};
  const subject = ownNote.ofHighlight(grows);
  const before = liveText(own);
  const joined = await writeOwnNote(subject, own, [before, ...others.map(noteText)].filter(Boolean).join('\n\n'));
  for (const note of others) await changeNote(note, { removed: true });
  return () => {
    void writeOwnNote(subject, joined, before);
    for (const note of others) void changeNote(note, { removed: false });
  };
}

/** Takes a highlight off with the note in it, and offers to put both back. */
export async function removeHighlight(highlight: Highlight): Promise<void> {
  const note = await ownNoteOf(highlight.id);
  const setRemoved = async (removed: boolean) => {
    await changeHighlight(highlight.id, { removed });
    if (note) await changeNote(note, { removed });
  };
  await setRemoved(true);
  useNotices.getState().show({
    text: 'The highlight is removed.',
    action: { label: 'Undo', press: () => void setRemoved(false) },
  });
}
