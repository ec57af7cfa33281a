import { NEVER, type NoteMutation, type WrittenNote } from '../model';
import { withChanges } from './apply';
import { mergeRegisters } from './merge';

/** What a note is after a mutation: the same on a device and on the server. Pure, and harmless to repeat. */
export function applyNoteMutation(note: WrittenNote | undefined, mutation: NoteMutation): WrittenNote {
  const untouched = <Value>(value: Value) => ({ value, at: NEVER });
  const blank: WrittenNote = {
    id: mutation.noteId,
    madeAt: mutation.madeAt,
    itemId: mutation.noteItemId,
    on: mutation.on,
    choices: {
      text: untouched(''),
      task: untouched('none'),
      dueOn: untouched(null),
      removed: untouched(false),
    },
  };
  const known = note ?? blank;
  return mergeNotes(known, { ...known, choices: withChanges(known.choices, mutation.set, mutation.stamp) });
}

/** Joins two states of one note: each choice by its latest stamp. */
export function mergeNotes(a: WrittenNote, b: WrittenNote): WrittenNote {
  const first = a.madeAt <= b.madeAt ? a : b;
  return { ...first, choices: mergeRegisters(a.choices, b.choices) };
}
