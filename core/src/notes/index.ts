export { isLive, liveText } from './live';
export { noteText } from './note-text';
export { notesUnder } from './notes-under';
export { ownNote } from './own-note';
export { mergeVersions, seenIn, withoutLater } from './versions';
