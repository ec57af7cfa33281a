export { chaptersOf } from './chapters';
export { foundInFeed } from './feed-archive';
export type { ForeignHighlight, HighlightFile } from './foreign-highlight';
export type { Findings, Found, FoundText } from './found';
export { readHighlightFile } from './highlight-file';
export { pagesInZip } from './pages-in-zip';
export {
  type AddressTable,
  addressTableIn,
  foundInTable,
  likelyColumns,
  TABLE_FIELDS,
  type TableColumns,
  type TableField,
} from './table';
export { pagesInWarc } from './warc';
