// npm start: production, with an empty library at first. Settings: README, “Running it for yourself”.
import { ensureBuilt, ensureInstalled, startTs } from './steps.mjs';

ensureInstalled();
ensureBuilt();
startTs('server/src/main.ts', { NODE_ENV: 'production' }).on('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => undefined);
