import { MadeToken } from '@dorvel/core/model';
import { captureWords } from '@dorvel/core/wording';
import { expect } from '@playwright/test';
import { test } from '../homes';
import { page } from '../ports';
import { Client } from './client';

test.describe.configure({ mode: 'parallel' });

/** What becomes of a save, whatever its page does: a final state in words, and the address is kept. */
for (const [name, address, says] of [
  ['is gone', page('rough', '/gone'), /answered 410.*address is kept/],
  ['answers 404', page('rough', '/never-was'), /answered 404.*address is kept/],
  ['hangs', page('rough', '/hangs'), /did not answer within 2 seconds.*last of 3 tries.*address is kept/],
  ['redirects in a circle', page('rough', '/circle'), /circle.*address is kept/],
  ['redirects for ever', page('rough', '/endless/1'), /more than 8 times.*address is kept/],
  ['redirects into a private network', page('rough', '/inside'), /private network.*address is kept/],
  ['is 60 MB', page('rough', '/huge'), /larger than 10 MB.*address is kept/],
  ['is a ZIP file', page('rough', '/zip'), /ZIP file.*address is kept/],
  ['is empty', page('rough', '/empty'), /empty.*address is kept/],
  ['is not text', page('rough', '/not-text'), /not text.*address is kept/],
  ['is in a private network', 'http://127.0.0.1:22/', /private network.*address is kept/],
  ['is the cloud’s metadata service', 'http://169.254.169.254/latest/meta-data', /private network.*address is kept/],
  ['is local under another spelling', 'http://2130706433/', /private network.*address is kept/],
  [
    'has a name that does not resolve',
    'http://there-is-no-such-host.invalid/',
    /No site answers to the name.*address is kept/,
  ],
] as const) {
  test(`a page that ${name}`, async ({ empty }) => {
    const client = await new Client(empty).signIn();
    const item = await client.settled(await client.save(address));
    expect(item.capture.state).toBe('failed');
    expect(captureWords(item.capture)).toMatch(says);
    expect(item.address).toBe(new URL(address).href);
  });
}

test('a page behind a sign-in arrives, with the verdict that its text did not', async ({ empty }) => {
  const client = await new Client(empty).signIn();
  const item = await client.settled(await client.save(page('parish', '/minutes/october')));
  expect(item.capture.page?.cameThrough.verdict).toBe('failed');
  expect(captureWords(item.capture)).toMatch(/sign-in/);
});

test('broken markup and a charset that only the meta tells come through', async ({ empty }) => {
  const client = await new Client(empty).signIn();
  const broken = await client.settled(await client.save(page('rough', '/broken')));
  const copy = await (await client.call('GET', `/copies/${broken.capture.page?.copyId}`)).text();
  for (const words of ['never closed', 'a tangle', 'must not be lost']) expect(copy).toContain(words);
  const charset = await client.settled(await client.save(page('rough', '/charset')));
  expect(charset.capture.page?.title).toBe('Fähre');
  expect(charset.capture.page?.excerpt).toContain('Die Fähre fährt früh über den Sund');
});

test('a page that is busy is tried again when it asked for that', async ({ empty }) => {
  const client = await new Client(empty).signIn();
  const item = await client.settled(await client.save(page('rough', '/busy')));
  expect(item.capture.page?.title).toBe('Not busy any more');
  expect(item.capture.attempts).toBe(2);
});

test('two addresses that lead to one page are one item', async ({ empty }) => {
  const client = await new Client(empty).signIn();
  const first = await client.save(page('rough', '/settled'));
  await client.settled(first);
  const second = await client.settled(await client.save(page('rough', '/moved')));
  expect(second.capture.duplicateOf).toBe(first);
});

/** Does something long, and sees that the server goes on answering meanwhile. */
async function whileAnswering<Result>(origin: string, work: () => Promise<Result>): Promise<Result> {
  const waits: number[] = [];
  let done = false;
  const result = work().finally(() => (done = true));
  while (!done) {
    const before = performance.now();
    await fetch(`${origin}/healthz`);
    waits.push(performance.now() - before);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  // A blocked loop would show as one wait as long as the work; on a busy machine single waits vary.
  expect(waits.sort((a, b) => a - b)[Math.floor(waits.length * 0.9)]).toBeLessThan(400);
  return result;
}

test('a page of 5 MB does not keep other requests waiting', async ({ empty }) => {
  const client = await new Client(empty).signIn();
  // Another address at a second try: a page that is in the library is not fetched again.
  const saved = await client.save(page('rough', `/long?try=${test.info().retry}`));
  const settled = await whileAnswering(empty, () => client.settled(saved, 60));
  expect(settled.capture.page?.wordCount).toBeGreaterThan(500_000);
  // Nor does relating it to the rest of the library.
  const made = await client.call('POST', '/tokens', { name: 'For a long page', scope: 'extension' });
  const { secret } = MadeToken.parse(await made.json());
  const known = await whileAnswering(empty, () =>
    client.call('GET', `/extension/items/${saved}`, undefined, { authorization: `Bearer ${secret}` }),
  );
  expect(known.status).toBe(200);
});
