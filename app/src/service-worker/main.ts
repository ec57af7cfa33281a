/// <reference lib="webworker" />
import { CacheableResponsePlugin } from 'workbox-cacheable-response';
import { clientsClaim, type WorkboxPlugin } from 'workbox-core';
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
  type PrecacheEntry,
} from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { CacheFirst } from 'workbox-strategies';
import { PICTURE_CACHE } from '../device/cache/picture-cache';
import { fromBefore, isOfSomeVersion, keepBefore } from './before';
import { keepShare } from './keep-share';

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (PrecacheEntry | string)[] };

void self.skipWaiting();
clientsClaim();
const kept = self.__WB_MANIFEST;
keepBefore(kept.map((each) => (typeof each === 'string' ? each : each.url)));
precacheAndRoute(kept);
cleanupOutdatedCaches();
registerRoute(
  new NavigationRoute(createHandlerBoundToURL('/index.html'), {
    // What the server answers itself, in the reader's own browser too.
    denylist: [/^\/(?:api|podcast|come-back|shown)(?:\/|$)/, /^\/(?:healthz|readyz)$/],
  }),
);
registerRoute(isOfSomeVersion, fromBefore);
// A phone's share sheet posts what is shared, files too. It is kept for the app, also without a connection.
registerRoute(
  ({ url }) => url.pathname === '/share',
  ({ request }) => keepShare(request),
  'POST',
);
// Its own type says that its hooks may be undefined, which workbox-core's does not allow.
const onlyGood = new CacheableResponsePlugin({ statuses: [200] }) as WorkboxPlugin;
// Named by content, so what is kept is never out of date. The sync loop fetches them ahead into the same cache.
registerRoute(
  ({ url }) => url.pathname.startsWith('/api/pictures/'),
  new CacheFirst({ cacheName: PICTURE_CACHE, plugins: [onlyGood] }),
);
registerRoute(
  ({ url }) => url.pathname.startsWith('/fonts/'),
  new CacheFirst({ cacheName: 'dorvel-fonts', plugins: [onlyGood] }),
);
