/** Files that came by the phone's share sheet, until the app has taken them. */
export const SHARE_CACHE = 'dorvel-shared';
export const NAME_HEADER = 'x-file-name';

/** Takes the files that were put by. */
export async function takeSharedFiles(): Promise<File[]> {
  if (!('caches' in globalThis)) return [];
  const cache = await caches.open(SHARE_CACHE);
  const files: File[] = [];
  for (const request of await cache.keys()) {
    const kept = await cache.match(request);
    if (kept) {
      const type = kept.headers.get('content-type') ?? '';
      files.push(new File([await kept.blob()], decodeURIComponent(kept.headers.get(NAME_HEADER) ?? ''), { type }));
    }
    await cache.delete(request);
  }
  return files;
}
