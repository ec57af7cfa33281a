// npm start: production, with an empty library at first. Settings: README, “Running it for yourself”.
import { ensureBuilt, ensureInstalled, startServer, stop } from './steps.mjs';

ensureInstalled();
ensureBuilt();
startServer({ NODE_ENV: 'production' }).on('exit', (code) => void stop(code ?? 1));
