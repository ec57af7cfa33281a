import type { AddressInfo } from 'node:net';
import { changeMaker } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import express from 'express';
import { v7 as uuidv7 } from 'uuid';
import { takePush } from '../library/take-mutations';
import { openTestLibrary } from '../library/test-library.test-data';
import { serverMetrics } from './metrics';

let now = Date.UTC(2026, 10, 1);
const clock = createClock('test', () => now);
const make = changeMaker({ clock, newId: uuidv7, now: () => now });
let house: Awaited<ReturnType<typeof openTestLibrary>>;
beforeEach(async () => {
  house = await openTestLibrary(() => now);
});
afterEach(() => house.close());

/** Every line as Prometheus' text format 0.0.4 has it: a name, labels in braces, a number. */
const LINE =
  /^(?:# (?:HELP|TYPE) \S+ .+|[a-z_:][a-z0-9_:]*(?:\{(?:[a-z_]+="[^"\n]*",?)+\})? (?:-?[\d.e+-]+|NaN|\+Inf))$/i;

async function numbers(metrics: ReturnType<typeof serverMetrics>): Promise<(name: string) => number | undefined> {
  const text = await metrics.text();
  const lines = text.split('\n').filter(Boolean);
  expect(lines.filter((line) => !LINE.test(line))).toEqual([]);
  return (name) => {
    const line = lines.find((each) => each.startsWith(`${name} `));
    return line === undefined ? undefined : Number(line.split(' ').at(-1));
  };
}

it('counts what there is, and how long what is due has waited', async () => {
  const metrics = serverMetrics(house.database, () => now);
  const save = make.save({ address: 'https://harbour.example/notice' });
  await takePush(house.library, { mutations: [save] }, { clock, now: () => now });
  now += 90_000;
  const of = await numbers(metrics);
  expect(of('dorvel_accounts')).toBe(1);
  expect(of('dorvel_items')).toBe(1);
  expect(of('dorvel_captures_open')).toBe(1);
  expect(of('dorvel_capture_overdue_seconds')).toBe(90);
  expect(of('dorvel_feed_overdue_seconds')).toBe(0);
  expect(of('dorvel_database_bytes')).toBeGreaterThan(10_000);
  // Pictures that wait to be looked at are no captures that are late.
  await house.library.change((write) => write.enqueueLooking(save.itemId, now - 500_000));
  const then = await numbers(metrics);
  expect([then('dorvel_pictures_to_look_at'), then('dorvel_captures_open')]).toEqual([1, 1]);
  expect(then('dorvel_capture_overdue_seconds')).toBe(90);
  expect(await metrics.text()).not.toMatch(/harbour|example\.org/);
});

it('takes the times of captures by outcome, and of changes until they are fetched', async () => {
  const metrics = serverMetrics(house.database, () => now);
  metrics.captured('arrived', 250);
  metrics.captured('arrived', 4000);
  metrics.captured('not-found', 100);
  metrics.changed('a');
  now += 2000;
  metrics.changed('a');
  metrics.fetched('a');
  metrics.fetched('a');
  metrics.changed('b');
  now += 10 * 60_000;
  metrics.fetched('b');
  const of = await numbers(metrics);
  expect(of('dorvel_captures_total{outcome="arrived"}')).toBe(2);
  expect(of('dorvel_captures_total{outcome="not-found"}')).toBe(1);
  expect(of('dorvel_capture_seconds_sum')).toBeCloseTo(4.35);
  expect([of('dorvel_sync_lag_seconds_count'), of('dorvel_sync_lag_seconds_sum')]).toEqual([1, 2]);
});

it('takes the times of requests by their routes, and not by their addresses', async () => {
  const metrics = serverMetrics(house.database, () => now);
  const app = express();
  app.use(metrics.timing);
  const router = express.Router();
  router.get('/copies/:id', (_request, response) => void response.json({}));
  app.use('/api', router);
  const server = app.listen(0);
  try {
    const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    for (const path of ['/api/copies/1?harbour', '/api/copies/2', '/harbour'])
      await (await fetch(`${origin}${path}`)).text();
    const of = await numbers(metrics);
    expect(of('dorvel_request_seconds_count{method="GET",route="/api/copies/:id",status="200"}')).toBe(2);
    expect(of('dorvel_request_seconds_count{method="GET",route="none",status="404"}')).toBe(1);
    expect(await metrics.text()).not.toContain('harbour');
  } finally {
    await new Promise((resolve) => server.close(resolve));
  }
});
