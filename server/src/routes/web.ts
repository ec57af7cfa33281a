import type { ServerResponse } from 'node:http';
import path from 'node:path';
import { Router } from 'express';
import expressStaticGzip from 'express-static-gzip';
import { createProxyMiddleware } from 'http-proxy-middleware';
import { unknownRoute } from './problem';

/**
 * What the voice's own worker may do: its engine is WebAssembly, which a page of ours may not start. A worker has the policy of
 * the answer that brought it.
 */
const VOICE_POLICY = "default-src 'none';script-src 'self' 'wasm-unsafe-eval';connect-src 'self'";

/**
 * The exported app: hashed files for ever, the rest checked each time; every path without an extension is the app. What the build
 * has compressed goes out as it lies there.
 */
export function webRoutes(webFolder: string): Router {
  const router = Router();
  const voiceWorker = path.join(webFolder, 'voice/worker.js');
  router.use(
    expressStaticGzip(webFolder, {
      index: false,
      enableBrotli: true,
      // Browsers name gzip first, and take either.
      orderPreference: ['br'],
      serveStatic: {
        setHeaders(response: ServerResponse, served: string) {
          const file = served.replace(/\.br$/, '');
          const hashed = /-[0-9a-f]{32}\.\w+$|\.[0-9a-f]{32}\.\w+$/.test(file);
          if (file === voiceWorker) response.setHeader('content-security-policy', VOICE_POLICY);
          response.setHeader('cache-control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      },
    }),
  );
  // The service worker takes what a phone shares; a browser that has none yet comes here.
  router.post('/share', (_request, response) => {
    response.redirect(303, '/share?again=yes');
  });
  router.get('/{*splat}', (request, response, next) => {
    if (path.extname(request.path) !== '') {
      next();
      return;
    }
    response.set('cache-control', 'no-cache').sendFile('index.html', { root: webFolder });
  });
  router.use(unknownRoute);
  return router;
}

/** In development Metro serves the app, through us, so that it has the same origin as the API. */
export function devWebRoutes(metro: string): Router {
  return Router().use(createProxyMiddleware({ target: metro, changeOrigin: true, ws: true }));
}
