import path from 'node:path';
import type { ObjectStorePlace } from './bucket';
import { type FileStore, folderStore } from './files';
import { type MadeFiles, madeInBucket, madeInFolder } from './made-files';
import { objectStore } from './object-store';

/** Where the pictures of a server are: in an object store, or in a folder. */
export interface PicturesPlace {
  picturesFolder: string;
  objectStore: ObjectStorePlace | null;
}

/** The pictures of a server. */
export const openFiles = (place: PicturesPlace): FileStore =>
  place.objectStore ? objectStore(place.objectStore) : folderStore(place.picturesFolder);

/** What a server makes for its readers, in the same store as its pictures, or in its own folder. */
export function openMadeFiles(place: { dataFolder: string; objectStore: ObjectStorePlace | null }): MadeFiles {
  const making = path.join(place.dataFolder, 'making');
  return place.objectStore ? madeInBucket(place.objectStore, making) : madeInFolder(place.dataFolder, making);
}
