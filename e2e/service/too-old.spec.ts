import { PROTOCOL, PROTOCOL_HEADER } from '@dorvel/core/sync';
import { expect } from '@playwright/test';
import { test } from '../homes';

test('a client that is too old is told so in words', async ({ seeded }) => {
  const asked = (protocol: string) => fetch(`${seeded}/api/sync/pull`, { headers: { [PROTOCOL_HEADER]: protocol } });
  expect((await asked('0')).status).toBe(426);
  const answer = await asked(String(PROTOCOL - 1));
  expect(answer.status).toBe(426);
  expect(await answer.json()).toMatchObject({
    detail: expect.stringMatching(/newer than this Dorvel.*kept/),
  });
  // Of one that is not, only the session counts.
  expect((await asked(String(PROTOCOL))).status).toBe(401);
});
