/** The cache that holds the pictures of the articles on this device; the service worker answers from it. */
export const PICTURE_CACHE = 'dorvel-pictures';
