import type { Note } from '../model';
import { noteText } from './note-text';

/** True for a note that says something and was not removed. */
export function isLive(note: Note): boolean {
  return !note.choices.removed.value && noteText(note) !== '';
}

/** What a note says to a reader: nothing when it was removed, or does not exist. */
export function liveText(note: Note | null | undefined): string {
  return note && isLive(note) ? noteText(note) : '';
}
