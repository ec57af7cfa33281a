/**
 * The screens that are not seen first, with what they are made with (charts, tables, dragging), as one part: fetched when there
 * is time, or when one of them is asked for.
 */
export { CardsScreen } from '@/features/cards/cards-screen';
export { FromMemoryScreen } from '@/features/cards/from-memory-screen';
export { DossiersFrame } from '@/features/dossiers/dossiers-frame';
export { HandOnScreen } from '@/features/dossiers/hand-on-screen';
export { AccountScreen } from '@/features/account/account-screen';
export { ArchiveScreen } from '@/features/archive/archive-screen';
export { ElsewhereScreen } from '@/features/elsewhere/elsewhere-screen';
export { FeedsScreen } from '@/features/feeds/feeds-screen';
export { GatheredScreen } from '@/features/highlights/gathered-screen';
export { HighlightsScreen } from '@/features/highlights/highlights-screen';
export { LookBackScreen } from '@/features/look-back/look-back-screen';
export { ArrangeNow } from '@/features/now/arrange-now';
export { PicturesScreen } from '@/features/pictures/pictures-screen';
export { NotesScreen } from '@/features/notes/notes-screen';
export { PodcastScreen } from '@/features/podcast/podcast-screen';
export { RemindersScreen } from '@/features/reminders/reminders-screen';
export { BulkScreen } from '@/features/sort/bulk-screen';
export { OrderScreen } from '@/features/sort/order-screen';
export { StatisticsScreen } from '@/features/statistics/statistics-screen';
export { TagsScreen } from '@/features/tags/tags-screen';
export { WorkOverScreen } from '@/features/work-over/work-over-screen';
