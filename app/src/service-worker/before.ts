/// <reference lib="webworker" />
import { cacheNames } from 'workbox-core';

declare const self: ServiceWorkerGlobalScope;

const BEFORE_CACHE = 'dorvel-before';
/** What is named by its content: such a name is asked for by the version that knows it, and no other. */
const HASHED = /-[0-9a-f]{32}\.(?:js|css)$/;

/**
 * Keeps what the version before had, while the one that replaces it comes in: a page that stands open goes on asking for its own
 * parts, which nobody else has any more, and so its reader need not leave the text for the sake of a new version.
 *
 * @param wanted what the new version keeps itself
 */
export function keepBefore(wanted: readonly string[]): void {
  const own = new Set(wanted.map((each) => new URL(each, self.location.href).pathname));
  self.addEventListener('install', (event) => {
    event.waitUntil(keep(own));
  });
}

async function keep(own: ReadonlySet<string>): Promise<void> {
  const kept = await caches.open(cacheNames.precache);
  const old = (await kept.keys()).filter(({ url }) => {
    const { pathname } = new URL(url);
    return HASHED.test(pathname) && !own.has(pathname);
  });
  // The first version there is has none before it.
  if (old.length === 0) return;
  await caches.delete(BEFORE_CACHE);
  const before = await caches.open(BEFORE_CACHE);
  for (const request of old) {
    const response = await kept.match(request);
    if (response) await before.put(request.url, response);
  }
}

export const isOfSomeVersion = ({ url }: { url: URL }): boolean =>
  url.origin === self.location.origin && HASHED.test(url.pathname);

/** What the version before had; what it had not either is asked for. */
export async function fromBefore({ request }: { request: Request }): Promise<Response> {
  return (await caches.match(request.url, { cacheName: BEFORE_CACHE })) ?? fetch(request);
}
