// npm run dev: the demo in watch mode. Metro serves the app through the server, so both have one origin.
import path from 'node:path';
import { ensureInstalled, ensureServerBuilt, root, start, startTs, waitFor } from './steps.mjs';

const port = Number(process.env.PORT ?? 4800);
const smallWebPort = port + 10;
ensureInstalled();
// What runs in processes of its own runs as it was built; the server itself from its sources.
ensureServerBuilt();
const bin = (name) => path.join(root, 'node_modules/.bin', name);
start(process.execPath, [path.join(root, 'app/scripts/build.mjs'), '--assets-only']).on('exit', () =>
  start(bin('expo'), ['start', '--web', '--port', '8081'], { EXPO_NO_TELEMETRY: '1' }, path.join(root, 'app')),
);
startTs('demo/small-web/main.ts', { SMALL_WEB_PORT: String(smallWebPort) });
start(bin('tsx'), ['watch', 'server/src/main.ts'], {
  PORT: String(port),
  DORVEL_DATA: path.join(root, 'data/demo'),
  DORVEL_DEMO: '1',
  DORVEL_SMALL_WEB: `localhost:${smallWebPort}`,
  DORVEL_ALLOW_HOSTS: `*.localhost:${smallWebPort}`,
  DORVEL_DEV_APP: 'http://localhost:8081',
});
await waitFor(`http://127.0.0.1:${port}/readyz`);
startTs('demo/seed/main.ts', {
  DORVEL_ADDRESS: `http://127.0.0.1:${port}`,
  SMALL_WEB_PORT: String(smallWebPort),
});
