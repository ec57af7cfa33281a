import { expect, test } from '@playwright/test';
import { ownServer } from '../own-server';
import { METRICS_PORT, page, WATCHED_PORT } from '../ports';
import { Client } from './client';

test('a server is watched by its numbers and its log, and neither says what anybody reads', async () => {
  const server = ownServer(WATCHED_PORT, {
    DORVEL_DEMO: '1',
    LOG_LEVEL: 'info',
    DORVEL_METRICS_PORT: String(METRICS_PORT),
    DORVEL_RETRY_WAITS: '',
  });
  await server.start();
  try {
    const reader = await new Client(server.origin).signIn();
    const [there, missing] = [page('rough', '/n/ferry'), page('rough', '/never-was-xyzzy')];
    for (const address of [there, missing]) await reader.settled(await reader.save(address));
    const asked = await reader.call('GET', `/extension/page?address=${encodeURIComponent(there)}`);
    expect(asked.status).toBe(401);
    expect((await reader.call('GET', '/nothing-here')).status).toBe(404);

    const numbers = await fetch(`http://127.0.0.1:${METRICS_PORT}/metrics`);
    expect(numbers.headers.get('content-type')).toContain('version=0.0.4');
    const text = await numbers.text();
    expect(text).toMatch(/^dorvel_items 2$/m);
    expect(text).toMatch(/^dorvel_captures_open 0$/m);
    const outcomes = [...text.matchAll(/^dorvel_captures_total\{outcome="([^"]+)"\} (\d+)$/gm)];
    expect(outcomes.reduce((sum, [, , count]) => sum + Number(count), 0)).toBe(2);
    expect(text).toMatch(/^dorvel_request_seconds_count\{method="POST",route="\/api\/sync\/push",status="200"\} 2$/m);
    expect(text).toMatch(/^process_resident_memory_bytes \d+/m);
    // Not at the door that everybody knows: there the app answers whatever it does not know.
    expect(await (await fetch(`${server.origin}/metrics`)).text()).not.toContain('dorvel_items');

    const log = server.output();
    expect(log).toContain('"path":"/api/extension/page"');
    for (const word of ['rough.localhost', 'xyzzy', '/n/ferry', 'ines@', 'dorvel_session']) {
      expect(log, word).not.toContain(word);
      expect(text, word).not.toContain(word);
    }
  } finally {
    await server.clear();
  }
});
