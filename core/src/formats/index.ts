export * from './archive';
export * from './book-chapter';
export * from './bookmarks';
export * from './cards';
export * from './discover';
export * from './epub';
export * from './feed';
export * from './opml';
export * from './highlights';
export * from './highlight-table';
export * from './markdown';
export * from './podcast';
export * from './look-back';
export * from './come-back';
export * from './account-letters';
export * from './csl';
export * from './dossier-feed';
export {
  asGrid,
  type HandedOn,
  type Head,
  oneLine,
  shownItems,
  shownParts,
  sourceLine,
  webAddress,
} from './dossier-handed-on';
export * from './dossier-letter';
export * from './dossier-lists';
export * from './dossier-markdown';
export * from './dossier-page';
export * from './dossier-style';
export { writeAtom, writeJsonFeed } from './feed-write';
export { readTableRows } from './table';
export { parseBookHtml } from './xml';
