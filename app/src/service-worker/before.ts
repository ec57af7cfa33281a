/// <reference lib="webworker" />
import { cacheNames } from 'workbox-core';

declare const self: ServiceWorkerGlobalScope;

const BEFORE_CACHE = 'dorvel-before';
/** What is named by its content: such a name is asked for by the version that knows it, and no other. */
const HASHED = /-[0-9a-f]{32}\.(?:js|css)$/;

/** So many versions are kept: a page may stand open through more than one that comes. */
const VERSIONS = 3;

/**
 * Keeps what the versions before had, while the one that replaces it comes in: a page that stands open goes on asking for its own
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
  const before = await caches.open(BEFORE_CACHE);
  for (const request of old) {
    const response = await kept.match(request);
    if (response) await before.put(request.url, response);
  }
  // In the order in which they came.
  const all = await before.keys();
  for (const request of all.slice(0, Math.max(0, all.length - VERSIONS * own.size))) await before.delete(request);
}

export const isOfSomeVersion = ({ url }: { url: URL }): boolean =>
  url.origin === self.location.origin && HASHED.test(url.pathname);

/** What a version before had; what none had is asked for. */
export async function fromBefore({ request }: { request: Request }): Promise<Response> {
  return (await caches.match(request.url, { cacheName: BEFORE_CACHE })) ?? fetch(request);
}
