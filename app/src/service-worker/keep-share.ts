import { NAME_HEADER, SHARE_CACHE } from '../device/cache/share-cache';

/**
 * Takes what a share sheet posts (Web Share Target, W3C draft): files are put by, words go on in the address.
 *
 * @returns the way to the screen that takes it up
 */
export async function keepShare(request: Request): Promise<Response> {
  const form = await request.formData();
  const words = new URLSearchParams();
  for (const name of ['title', 'text', 'url']) {
    const value = form.get(name);
    if (typeof value === 'string' && value !== '') words.set(name, value);
  }
  const files = form.getAll('files').filter((each): each is File => each instanceof File && each.size > 0);
  const cache = await caches.open(SHARE_CACHE);
  await Promise.all(
    files.map((file, at) =>
      cache.put(
        `/shared/${Date.now()}-${at}`,
        new Response(file, {
          headers: { [NAME_HEADER]: encodeURIComponent(file.name), 'content-type': file.type },
        }),
      ),
    ),
  );
  if (files.length > 0) words.set('files', String(files.length));
  return Response.redirect(`/share?${words.toString()}`, 303);
}
