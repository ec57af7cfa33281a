// Watches over a process of a workshop from a thread of its own, which goes on when the others are too busy to.
import { workerData } from 'node:worker_threads';

const LOOK_MS = 15;
const parent = process.ppid;

setInterval(() => {
  // SIGUSR2 ends a process that does not handle it, and nothing else sends it: so the workshop knows why.
  if (process.memoryUsage.rss() > workerData.mostBytes) process.kill(process.pid, 'SIGUSR2');
  if (process.ppid !== parent) process.kill(process.pid, 'SIGKILL');
}, LOOK_MS);
