import { PROTOCOL_HEADER } from '@dorvel/core/sync';
import { expect, test } from '@playwright/test';
import { SEEDED } from '../ports';

test('a client that is too old is told so in words', async () => {
  const asked = (protocol: string) => fetch(`${SEEDED}/api/sync/pull`, { headers: { [PROTOCOL_HEADER]: protocol } });
  const answer = await asked('0');
  expect(answer.status).toBe(426);
  expect(await answer.json()).toMatchObject({
    detail: expect.stringMatching(/newer than this Dorvel.*kept/),
  });
  // Of one that is not, only the session counts.
  expect((await asked('2')).status).toBe(401);
});
