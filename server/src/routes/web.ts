import path from 'node:path';
import express, { Router } from 'express';
import { createProxyMiddleware } from 'http-proxy-middleware';
import { unknownRoute } from './problem';

/**
 * What the voice's own worker may do: its engine is WebAssembly, which a page of ours may not start. A worker has the policy of
 * the answer that brought it.
 */
const VOICE_POLICY = "default-src 'none';script-src 'self' 'wasm-unsafe-eval';connect-src 'self'";

/** The exported app: hashed files for ever, the rest checked each time; every path without an extension is the app. */
export function webRoutes(webFolder: string): Router {
  const router = Router();
  const voiceWorker = path.join(webFolder, 'voice/worker.js');
  router.use(
    express.static(webFolder, {
      index: false,
      setHeaders(response, file) {
        const hashed = /-[0-9a-f]{32}\.\w+$|\.[0-9a-f]{32}\.\w+$/.test(file);
        if (file === voiceWorker) response.set('content-security-policy', VOICE_POLICY);
        response.set('cache-control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
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
    response.set('cache-control', 'no-cache').sendFile(path.join(webFolder, 'index.html'));
  });
  router.use(unknownRoute);
  return router;
}

/** In development Metro serves the app, through us, so that it has the same origin as the API. */
export function devWebRoutes(metro: string): Router {
  return Router().use(createProxyMiddleware({ target: metro, changeOrigin: true, ws: true }));
}
