import type { AddressInfo } from 'node:net';
import { FindResponse } from '@dorvel/core/model';
import type { ItemFacts } from '@dorvel/core/search';
import express from 'express';
import type { FindableLibrary } from '../library/findable';
import { findRoutes } from './find';

const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;

/** A library of so many items, all of which have the word. */
function libraryOf(count: number): FindableLibrary {
  const ids = Array.from({ length: count }, (_, n) => uuid(n));
  const facts = { tags: [], language: 'en', savedAt: 0, stage: 'kept' } as unknown as ItemFacts;
  return {
    source: {
      match: () => new Map(ids.map((id, n) => [id, count - n])),
      knowsStart: () => true,
      termsBeginning: () => [['tide', count]],
      termsAmong: () => [],
    },
    facts: async () => new Map(ids.map((id) => [id, facts])),
    textOf: async () => ({ text: 'The tide turns.', language: 'en' }),
  };
}

async function ask(count: number) {
  const app = express();
  app.use(express.json(), (_request, response, next) => {
    Object.assign(response.locals, { account: { id: uuid(9) } });
    next();
  });
  app.use(findRoutes(() => libraryOf(count)));
  const server = app.listen(0);
  try {
    const { port } = server.address() as AddressInfo;
    const answer = await fetch(`http://127.0.0.1:${port}/find`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        ...{ written: 'tide', scope: 'all', typing: false, zoneMinutes: 0, paces: { eyes: 1, ears: 1 } },
        ...{ from: 0, passages: 2 },
      }),
    });
    return FindResponse.parse(await answer.json());
  } finally {
    server.close();
  }
}

it('names all that was found while they are few, with the passages that were asked for', async () => {
  const { answer, passages } = await ask(30);
  expect([answer.ids.length, answer.count, answer.ids[0]]).toEqual([30, null, uuid(0)]);
  expect(passages[uuid(1)]).toMatchObject({ text: expect.stringContaining('tide') as string });
  expect(Object.keys(passages)).toHaveLength(2);
});

it('of very many names the first thousand, and says how many there are', async () => {
  const { answer } = await ask(4321);
  expect([answer.ids.length, answer.count]).toEqual([1000, 4321]);
  expect(answer.ids[999]).toBe(uuid(999));
});
