/// <reference lib="webworker" />
import {
  addressTableIn,
  chaptersOf,
  foundInFeed,
  foundInTable,
  likelyColumns,
  pagesInWarc,
  pagesInZip,
  readHighlightFile,
} from '@dorvel/core/bring-in';
import { isBookmarkFile, readBookmarks } from '@dorvel/core/formats';
import { expose } from 'comlink';
import type { BringIn } from './bring-in';

const bytesOf = async (file: File): Promise<Uint8Array> => new Uint8Array(await file.arrayBuffer());

const bringIn: BringIn = {
  async bookmarks(file) {
    const text = await file.text();
    return isBookmarkFile(text) ? readBookmarks(text) : null;
  },
  chapters: async (file) => chaptersOf(await bytesOf(file)),
  feed: async (file) => foundInFeed(await file.text()),
  highlights: async (file) => readHighlightFile(await file.text()),
  table(text) {
    const table = addressTableIn(text);
    return table && { table, columns: likelyColumns(table) };
  },
  inTable: foundInTable,
  warc: async (file) => pagesInWarc(await bytesOf(file)),
  zip: async (file) => pagesInZip(await bytesOf(file)),
};

expose(bringIn);
