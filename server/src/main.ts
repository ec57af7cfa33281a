import { mkdirSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { createClock } from '@dorvel/core/sync';
import { pino } from 'pino';
import { createApp } from './app';
import { capture, postpone, type CaptureTools } from './capture/capture';
import { poolExtractor } from './capture/extractor';
import { folderStore } from './capture/files';
import { startRunner } from './capture/runner';
import { readConfig } from './config';
import { accountRepository } from './db/accounts';
import { findableLibrary, putMissingFindables } from './db/findable';
import { feedSchedule } from './db/feeds';
import { jobRepository, type Job } from './db/jobs';
import { libraryOf } from './db/library';
import { mailboxRepository } from './db/mailboxes';
import { openDatabase } from './db/open';
import { perAccount } from './db/per-account';
import { threadProfiler } from './db/profiler';
import { relatedLibrary } from './db/related';
import { tokenRepository } from './db/tokens';
import { lookAtFeed } from './feeds/look';
import { mailListener } from './mail/listener';
import { podcastShelf } from './publish/podcasts';
import { threadSpeaker } from './publish/speaker';
import { ChangeBell } from './routes/sync';

const config = readConfig(process.env, path.resolve(import.meta.dirname, '../..'));
const log = pino({ level: config.logLevel });
mkdirSync(config.dataFolder, { recursive: true });
const database = await openDatabase(config.databaseUrl, config.migrationsFolder);
const accounts = accountRepository(database, Date.now);
const jobs = jobRepository(database, Date.now);
const files = folderStore(path.join(config.dataFolder, 'pictures'));
const extractor = poolExtractor(config.extractWorker);
const profiler = threadProfiler(config.profileWorker);
const clock = createClock('server', Date.now);
const bell = new ChangeBell();
const mailboxes = mailboxRepository(database);
const library = (accountId: string) => libraryOf(database, accountId);

if (config.demo) {
  const { mail, name, passphrase } = config.demo;
  await accounts.create(mail, name, passphrase);
}

const tools: CaptureTools = {
  extractor,
  files,
  rules: { allowHosts: config.allowHosts, timeoutMs: config.fetchTimeoutMs },
  retryWaitsMs: config.retryWaitsMs,
  clock,
  now: Date.now,
};
const recovered = await jobs.recover();
if (recovered > 0) log.info({ jobs: recovered }, 'going on with captures that were under way');
const settled = (work: (job: Job) => Promise<void>) => (job: Job) =>
  work(job).finally(() => bell.ring(job.accountId));
const runner = startRunner(
  jobs,
  config.capturesAtOnce,
  settled((job) => capture(job, library(job.accountId), tools)),
  (job, error) => settled((each) => postpone(each, library(each.accountId), tools, error))(job),
  log,
);

const lookout = startRunner(
  feedSchedule(database, Date.now),
  config.feedsAtOnce,
  async (due) => {
    await lookAtFeed(due, library(due.accountId), { ...tools, shortestMs: config.feedRestMs });
    bell.ring(due.accountId);
    runner.wake();
  },
  // It is due again in some minutes; see feedSchedule.
  () => Promise.resolve(),
  log,
);

const speaker = threadSpeaker(config.speakWorker);
const podcasts = podcastShelf(database, path.join(config.dataFolder, 'podcasts'), speaker, Date.now);
await podcasts.recover();
const reading = startRunner(
  podcasts,
  1,
  (job) => podcasts.makeSound(job),
  // It stays failed, and says so; the reader can ask for it again by another address of the podcast.
  () => Promise.resolve(),
  log,
);

const made = await putMissingFindables(database);
if (made > 0) log.info({ items: made }, 'made findable what was saved before there was finding');

const app = createApp({
  config,
  log,
  accounts,
  tokens: tokenRepository(database, Date.now),
  mailboxes,
  jobs,
  library,
  findable: perAccount((accountId) => findableLibrary(database, accountId), 100),
  related: perAccount((accountId) => relatedLibrary(database, accountId, profiler), 20),
  files,
  podcasts,
  clock,
  bell,
  wakeRunner() {
    runner.wake();
    lookout.wake();
  },
  wakeSpeaker: reading.wake,
});
const server = app.listen(config.port, config.host, (error?: Error) => {
  if (error) {
    log.fatal({ err: error }, 'cannot listen');
    process.exit(1);
  }
  log.info({ port: (server.address() as AddressInfo).port }, 'listening');
});

// Longer than a proxy or a client keeps a connection that it does not use: who closes first must be them, or a request that
// is on its way meets a closed door.
server.keepAliveTimeout = 75_000;
server.headersTimeout = 80_000;

const mail = config.mail
  ? mailListener({
      mailboxes,
      library,
      clock,
      now: Date.now,
      mostAnHour: 120,
      saved(accountId) {
        bell.ring(accountId);
        runner.wake();
      },
      log,
    })
  : null;
mail?.listen(config.mail?.port, config.host, () => log.info({ port: config.mail?.port }, 'taking mail'));

let stopping = false;
async function stop(signal: string) {
  if (stopping) return;
  stopping = true;
  log.info({ signal }, 'stopping');
  server.close();
  mail?.close();
  const patience = setTimeout(() => server.closeAllConnections(), 2000);
  server.closeIdleConnections();
  // A capture that takes longer than this is recovered at the next start.
  await Promise.race([
    Promise.all([runner.stop(), lookout.stop(), reading.stop()]),
    new Promise((resolve) => setTimeout(resolve, 8000)),
  ]);
  clearTimeout(patience);
  server.closeAllConnections();
  await extractor.close();
  await profiler.close();
  await speaker.close();
  database.close();
  process.exit(0);
}
process.on('SIGTERM', () => void stop('SIGTERM'));
process.on('SIGINT', () => void stop('SIGINT'));
