import { MemoryStore } from 'express-rate-limit';
import { pino } from 'pino';
import { type AppParts, createApp } from '../app';
import { readConfig } from '../config';
import { openApi } from './openapi';

interface Layer {
  route?: { path: string; methods: Record<string, boolean> };
  handle: { stack?: Layer[] };
  match(path: string): boolean;
}

/** The shortest first: a layer does not tell where it was mounted, but it takes all that lies below. */
const PREFIXES = ['/anywhere', '/api', '/podcast', '/api/sync', '/api/extension'];

/** A layer's routes, as `get /api/copies/{id}`. */
function routesOf(layer: Layer): string[] {
  const found = PREFIXES.find((each) => layer.match(each)) ?? '';
  const prefix = found === '/anywhere' ? '' : found;
  return (layer.handle.stack ?? []).flatMap(({ route }) =>
    Object.keys(route?.methods ?? {}).map(
      (method) => `${method} ${prefix}${(route?.path ?? '').replace(/:(\w+)/g, '{$1}')}`,
    ),
  );
}

it('describes every route of the API that there is, and none that there is not', () => {
  const parts = {
    ...{ config: readConfig({}, '/nowhere'), log: pino({ level: 'silent' }), tries: () => new MemoryStore() },
    metrics: { timing: (_request: unknown, _response: unknown, next: () => void) => next() },
  } as unknown as AppParts;
  const { stack } = createApp(parts).router as unknown as { stack: Layer[] };
  const found = stack.flatMap(routesOf).filter((route) => / \/(api\/|healthz|readyz)/.test(route));
  const described = Object.entries(openApi().paths).flatMap(([path, operations]) =>
    Object.keys(operations).map((method) => `${method} ${path}`),
  );
  expect(found.length).toBeGreaterThan(25);
  expect([...new Set(found)].sort()).toEqual(described.sort());
});
