// A server with the demo's account and an empty library, that reaches the small web and is quick to give up on a page.
import { rmSync } from 'node:fs';
import { ensureServerBuilt, startServer, stop } from '../scripts/steps.mjs';

rmSync(process.env.DORVEL_DATA, { recursive: true, force: true });
ensureServerBuilt();
startServer({
  DORVEL_DEMO: '1',
  DORVEL_ALLOW_HOSTS: `*.localhost:${process.env.SMALL_WEB_PORT}`,
  DORVEL_MAIL_DOMAIN: 'skerrow.example',
  DORVEL_RETRY_WAITS: '200,400',
  DORVEL_FETCH_TIMEOUT: '2000',
  LOG_LEVEL: 'info',
}).on('exit', (code) => void stop(code ?? 1));
