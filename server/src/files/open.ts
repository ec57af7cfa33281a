import { type FileStore, folderStore } from './files';
import { objectStore, type ObjectStorePlace } from './object-store';

/** Where the pictures of a server are: in an object store, or in a folder. */
export interface PicturesPlace {
  picturesFolder: string;
  objectStore: ObjectStorePlace | null;
}

/** The pictures of a server. */
export const openFiles = (place: PicturesPlace): FileStore =>
  place.objectStore ? objectStore(place.objectStore) : folderStore(place.picturesFolder);
