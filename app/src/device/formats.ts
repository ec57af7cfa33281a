/**
 * All that reads and writes what comes from elsewhere or goes there, as one part that is fetched when it is first needed: it is
 * larger than what a library is read with.
 */
export { treeToHtml } from '@dorvel/core/extract';
export * from '@dorvel/core/formats';
