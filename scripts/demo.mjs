// npm run demo: installs, builds, migrates, seeds and starts everything; --fresh starts over. PORT sets the port.
import { rmSync } from 'node:fs';
import path from 'node:path';
import { ensureBuilt, ensureInstalled, root, startServer, startTs, stop, waitFor } from './steps.mjs';

const port = Number(process.env.PORT ?? 4800);
const smallWebPort = Number(process.env.SMALL_WEB_PORT ?? port + 10);
const mailPort = Number(process.env.MAIL_PORT ?? port + 25);
const letterPort = Number(process.env.LETTER_PORT ?? port + 26);
const data = process.env.DORVEL_DATA ?? path.join(root, 'data/demo');
const address = `http://127.0.0.1:${port}`;

ensureInstalled();
ensureBuilt();
if (process.argv.includes('--fresh')) rmSync(data, { recursive: true, force: true });

const smallWeb = startTs('demo/small-web/main.ts', {
  SMALL_WEB_PORT: String(smallWebPort),
  DORVEL_MAIL_PORT: String(mailPort),
  DORVEL_LETTER_PORT: String(letterPort),
});
const server = startServer({
  PORT: String(port),
  DORVEL_DATA: data,
  DORVEL_DEMO: '1',
  DORVEL_MAIL_PORT: String(mailPort),
  DORVEL_MAIL_DOMAIN: 'skerrow.example',
  DORVEL_SMTP_URL: `smtp://127.0.0.1:${letterPort}`,
  DORVEL_LETTER_FROM: 'Dorvel <dorvel@skerrow.example>',
  DORVEL_SMALL_WEB: `localhost:${smallWebPort}`,
  DORVEL_ALLOW_HOSTS: `*.localhost:${smallWebPort}`,
  LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
});
for (const child of [smallWeb, server]) child.on('exit', (code) => void stop(code ?? 1));

await waitFor(`${address}/readyz`);
await waitFor(`http://127.0.0.1:${smallWebPort}/`);
const seed = startTs('demo/seed/main.ts', { DORVEL_ADDRESS: address, SMALL_WEB_PORT: String(smallWebPort) });
await new Promise((resolve, reject) =>
  seed.on('exit', (code) => (code === 0 ? resolve() : reject(new Error('The seed failed.')))),
);
console.log(`
Dorvel’s demo is ready:  ${address}
Account:                 ines@skerrow.example
Passphrase:              the tide waits for the ferry   (one press on the sign-in screen fills it in)
The small web:           for instance http://tidewater.localhost:${smallWebPort}/
A mail program:          http://post.localhost:${smallWebPort}/ (what it received: /letters)
Ctrl-C ends it; the library stays for the next time. “npm run demo -- --fresh” starts over.`);
