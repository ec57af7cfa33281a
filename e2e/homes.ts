import { cpSync } from 'node:fs';
import { test as base } from '@playwright/test';
import { ownServer } from './own-server';
import { LETTER_PORT, LIBRARY_OF_DEMO, portsOf, SMALL_WEB_PORT } from './ports';

/** Servers of which each worker has its own, so that no test meets what another project or a test beside it does. */
interface Homes {
  /** The origin of a server with the demo's account and nothing in it, that is quick to give up on a page. */
  empty: string;
  /** The port of its mail. */
  emptyMail: number;
  /** The origin of a server with the demo's library, as it was seeded. */
  seeded: string;
}

const ofTheDemo = (mailPort: number) => ({
  DORVEL_DEMO: '1',
  DORVEL_MAIL_PORT: String(mailPort),
  DORVEL_MAIL_DOMAIN: 'skerrow.example',
  DORVEL_SMTP_URL: `smtp://127.0.0.1:${LETTER_PORT}`,
  DORVEL_SMALL_WEB: `localhost:${SMALL_WEB_PORT}`,
});

export const test = base.extend<object, Homes>({
  empty: [
    async ({ emptyMail }, use, { parallelIndex }) => {
      const server = ownServer(portsOf(parallelIndex).empty, {
        ...ofTheDemo(emptyMail),
        DORVEL_RETRY_WAITS: '200,400',
        DORVEL_FETCH_TIMEOUT: '2000',
      });
      await server.start();
      await use(server.origin);
      await server.clear();
    },
    { scope: 'worker' },
  ],
  // eslint-disable-next-line no-empty-pattern -- Playwright reads the names of what a fixture needs from here
  emptyMail: [async ({}, use, { parallelIndex }) => use(portsOf(parallelIndex).emptyMail), { scope: 'worker' }],
  seeded: [
    // eslint-disable-next-line no-empty-pattern -- as above
    async ({}, use, { parallelIndex }) => {
      const ports = portsOf(parallelIndex);
      const server = ownServer(ports.seeded, ofTheDemo(ports.seededMail));
      cpSync(LIBRARY_OF_DEMO, server.env.DORVEL_DATA ?? '', { recursive: true });
      await server.start();
      await use(server.origin);
      await server.clear();
    },
    { scope: 'worker' },
  ],
});
