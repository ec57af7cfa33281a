// npm run doctor, backup, restore, extract: one of the server's commands, built first where it is not.
import path from 'node:path';
import { ensureInstalled, ensureServerBuilt, root, start } from './steps.mjs';

const [name, ...words] = process.argv.slice(2);
ensureInstalled();
ensureServerBuilt();
start(process.execPath, [path.join(root, `server/dist/commands/${name}.mjs`), ...words]).on('exit', (code) =>
  process.exit(code ?? 1),
);
