/** What a text is read and heard with, as one part: fetched once the first list stands, or when a text is opened. */
export { bringVoices } from '@/features/listen/bring-voices';
export { ListeningPage } from '@/features/listen/listening-page';
export { PlayerBar } from '@/features/listen/player-bar';
export { startPlayer } from '@/features/listen/player-store';
export { ReaderScreen } from '@/features/reader/reader-screen';
