import { randomBytes } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { createClock } from '@dorvel/core/sync';
import { accountTeller } from './accounts/account-teller';
import { accountRepository } from './accounts/accounts';
import { newCode } from './accounts/codes';
import { accountEventLog } from './accounts/events';
import { invitationRepository } from './accounts/invitations';
import { mailboxRepository } from './accounts/mailboxes';
import { passkeyRepository } from './accounts/passkeys';
import { resetCodeRepository } from './accounts/reset-codes';
import { sessionRepository } from './accounts/sessions';
import { tokenRepository } from './accounts/tokens';
import { triesIn } from './accounts/tries';
import { openWorkshop } from './apart/workshop';
import { createApp } from './app';
import { incomingArchives } from './archive/incoming';
import { threadArchiveMaker } from './archive/maker';
import { nightlyArchives } from './archive/nightly';
import { archiveShelf } from './archive/shelf';
import { capture, type CaptureTools, postpone } from './capture/capture';
import { workshopExtractor } from './capture/extractor';
import { look, type LookingTools, lookLater } from './capture/looking';
import { createSiteIcons } from './capture/site-icon';
import { readConfig } from './config';
import { NotSound, openSound } from './db/sound';
import { pollFeed } from './feeds/poll';
import { openFiles, openMadeFiles } from './files/open';
import { leaderOf, onlyLed } from './jobs/leader';
import { type Job, jobRepository, type Lane } from './jobs/queue';
import { startRunner } from './jobs/runner';
import { ChangeBell } from './library/bell';
import { echoSource } from './library/echoes';
import { hearElsewhere } from './library/elsewhere';
import { eraseLetGo } from './library/erase';
import { eraseAccount } from './library/erase-account';
import { feedSchedule } from './library/feeds';
import { findableLibrary, putMissingFindables } from './library/findable';
import { libraryOf } from './library/library';
import { perAccount } from './library/per-account';
import { workshopProfiler } from './library/profiler';
import { profileStore } from './library/profiles';
import { relatedLibrary } from './library/related';
import { mailListener } from './mail/listener';
import { serverLog } from './operating/log';
import { serverMetrics } from './operating/metrics';
import { dossierShelf } from './publish/dossiers';
import { podcastShelf } from './publish/podcasts';
import { reminderShelf } from './publish/reminders';
import { letterSender } from './publish/send-letter';
import { threadSpeaker } from './publish/speaker';
import { showMetrics } from './routes/metrics';

const ERASE_EVERY_MS = 60 * 60 * 1000;
/** After a start there is other work to be done first. */
const FIRST_ARCHIVE_MS = 60 * 1000;
const ARCHIVE_EVERY_MS = 60 * 60 * 1000;
const config = readConfig(process.env, path.resolve(import.meta.dirname, '../..'));
const log = serverLog(config.logLevel);
mkdirSync(config.dataFolder, { recursive: true });
const database = await openSound(config).catch((error: unknown) => {
  if (!(error instanceof NotSound)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exit(1);
});
const accounts = accountRepository(database, Date.now);
/** In a database that others share, each process has a name of its own: no two give the same stamps. */
const ownName = database.isShared ? `server-${randomBytes(4).toString('hex')}` : 'server';
const jobs = jobRepository(database, Date.now, ownName);
const leader = leaderOf(database, ownName, Date.now);
const files = openFiles(config);
const madeFiles = openMadeFiles(config);
const tasks = (name: 'texts' | 'pictures' | 'looking') => path.join(config.builtFolder, `tasks/${name}.child.mjs`);
// What strangers sent is taken apart in these, each in a process of its own: so much memory for each, and no more.
const workshops = {
  quick: openWorkshop({ entry: tasks('texts'), mostBytes: 200_000_000, idleMs: 20_000 }),
  post: openWorkshop({ entry: tasks('texts'), mostBytes: 200_000_000, idleMs: 5000 }),
  long: openWorkshop({ entry: tasks('texts'), mostBytes: 330_000_000, idleMs: 1000, niceness: 5 }),
  small: openWorkshop({ entry: tasks('pictures'), mostBytes: 200_000_000, idleMs: 4000 }),
  large: openWorkshop({ entry: tasks('pictures'), mostBytes: 240_000_000, idleMs: 1000, niceness: 5 }),
  looking: openWorkshop({ entry: tasks('looking'), mostBytes: 700_000_000, idleMs: 15_000, niceness: 10 }),
};
/** An account's own clock: what one account's devices say of the time is nothing to another's. */
const clockOf = perAccount(() => createClock(ownName, Date.now), 1000);
const bell = new ChangeBell();
const stopHearing = hearElsewhere(database, bell, log);
const mailboxes = mailboxRepository(database);
const inData = (name: string) => path.join(config.dataFolder, name);
const library = (accountId: string) => libraryOf(database, accountId);

if (config.demo) {
  const { mail, name, passphrase } = config.demo;
  await accounts.create(mail, name, passphrase);
}
const setupCode = newCode();
if ((await accounts.count()) === 0)
  // Where whoever started it can read it, whatever the log is set to.
  process.stdout.write(`Set-up code for the first account: ${setupCode}\n`);

const rules = { allowHosts: config.allowHosts, timeoutMs: config.fetchTimeoutMs };
const siteIconAt = createSiteIcons(workshops, files, rules);
const toolsOf = (accountId: string): CaptureTools => ({
  extractor: workshopExtractor(workshops, config.longLimitMs),
  files,
  darkrooms: workshops,
  siteIconAt,
  rules,
  retryWaitsMs: config.retryWaitsMs,
  pictureQuotaBytes: config.pictureQuotaBytes,
  clock: clockOf(accountId),
  now: Date.now,
});
const recovered = await jobs.recover();
if (recovered > 0) log.info({ jobs: recovered }, 'going on with captures that were under way');
const metrics = serverMetrics(database, Date.now);
const count = async ({ accountId, itemId }: Job, begunAt: number) => {
  const item = await library(accountId).item(itemId);
  if (item) metrics.captured(item.capture.outcome.code, Date.now() - begunAt);
};
const settled = (work: (job: Job) => Promise<void>) => async (job: Job) => {
  const begunAt = Date.now();
  try {
    await work(job);
  } finally {
    metrics.changed(job.accountId);
    bell.ring(job.accountId);
    // What turned out to be long waits in the other lane now.
    wakeCaptures();
  }
  await count(job, begunAt).catch((error: unknown) => log.error({ err: error }, 'a capture was not counted'));
};
const capturing = (lane: Lane, atOnce: number) =>
  startRunner(
    jobs.lane(lane),
    atOnce,
    settled((job) => capture(job, library(job.accountId), toolsOf(job.accountId))),
    (job, error) => settled((each) => postpone(each, library(each.accountId), toolsOf(each.accountId), error))(job),
    log,
  );
const lookingTools: LookingTools = {
  workshop: workshops.looking,
  files,
  extractor: workshopExtractor(workshops, config.longLimitMs),
  limitMs: 60_000,
  now: Date.now,
};
const afterLooking = (work: (job: Job<'looking'>) => Promise<void>) => (job: Job<'looking'>) =>
  work(job).finally(() => {
    metrics.changed(job.accountId);
    bell.ring(job.accountId);
  });
const lookingOn = startRunner(
  jobs.lane('looking'),
  1,
  afterLooking((job) => look(job, library(job.accountId), lookingTools)),
  afterLooking((job) => lookLater(job, library(job.accountId), lookingTools)),
  log,
);
const runners = [capturing('quick', config.capturesAtOnce), capturing('long', 1), lookingOn];
const wakeCaptures = () => runners.forEach((runner) => runner.wake());

const lookout = startRunner(
  onlyLed(feedSchedule(database, Date.now, Math.min(5000, config.feedRestMs)), leader, Date.now),
  config.feedsAtOnce,
  async (due) => {
    const tools = { ...toolsOf(due.accountId), workshop: workshops.post, shortestMs: config.feedRestMs };
    await pollFeed(due, library(due.accountId), tools);
    bell.ring(due.accountId);
    wakeCaptures();
  },
  // It is due again in some minutes; see feedSchedule.
  () => Promise.resolve(),
  log,
);

const incoming = incomingArchives(madeFiles, config.mostArchiveBytes, Date.now);
const erase = async () => {
  if (!(await leader.leads())) return;
  await incoming.forgetOld();
  const erased = await eraseLetGo(database, Date.now());
  for (const hash of erased.pictures) await files.remove(hash);
  for (const accountId of erased.accountIds) bell.ring(accountId);
  if (erased.items > 0) log.info({ items: erased.items }, 'erased what was let go 30 days ago');
};
const eraseNow = () => void erase().catch((error: unknown) => log.error({ err: error }, 'erasing failed'));
const erasing = setInterval(eraseNow, ERASE_EVERY_MS).unref();
eraseNow();

const archiveMaker = threadArchiveMaker(path.join(config.builtFolder, 'archive/make.worker.mjs'), config);
const nightly = nightlyArchives({ database, maker: archiveMaker, ...config.nightly, now: Date.now, log });
const archive = async () => {
  if (await leader.leads()) await nightly.makeDue();
};
const archiveNow = () => void archive().catch((error: unknown) => log.error({ err: error }, 'no archives'));
const archiving = [setTimeout(archiveNow, FIRST_ARCHIVE_MS).unref(), setInterval(archiveNow, ARCHIVE_EVERY_MS).unref()];

const speaker = threadSpeaker(
  path.join(config.builtFolder, 'publish/speak.worker.mjs'),
  path.join(config.webFolder, 'voice'),
);
const podcasts = podcastShelf(database, madeFiles, speaker, Date.now);
const reading = startRunner(
  // What was being made when whoever led before ended is begun again.
  onlyLed(podcasts, leader, Date.now, podcasts.recover),
  1,
  (job) => podcasts.makeSound(job),
  // It stays failed, and says so; the reader can ask for it again by another address of the podcast.
  () => Promise.resolve(),
  log,
);

const made = await putMissingFindables(database);
if (made > 0) log.info({ items: made }, 'made findable what was saved before there was finding');

const profilesOf = (accountId: string) => profileStore(database, accountId, workshopProfiler(workshops.long));
const related = perAccount((accountId) => relatedLibrary(database, accountId, profilesOf(accountId)), 20);
const send = config.letters ? letterSender(config.letters.url, config.letters.from) : null;
const reminders = reminderShelf(database, {
  send,
  readerOf: (accountId, { zone, origin }) => ({
    ...{ library: library(accountId), related: related(accountId), zone, origin },
    tools: { clock: clockOf(accountId), now: Date.now },
  }),
  now: Date.now,
});
const posting = startRunner(
  onlyLed(reminders, leader, Date.now),
  2,
  async (job) => {
    await reminders.sendLetter(job);
    bell.ring(job.accountId);
  },
  async (job) => {
    await reminders.putBack(job);
  },
  log,
);
const findable = perAccount((accountId) => findableLibrary(database, accountId), 100);
const archives = archiveShelf({ database, maker: archiveMaker, folder: inData('archives'), now: Date.now });
const eraseAll = async (accountId: string) => {
  const account = await accounts.byId(accountId);
  if (!account) return;
  for (const hash of await eraseAccount(database, accountId)) await files.remove(hash);
  await podcasts.end(accountId);
  await archives.forget(accountId);
  await incoming.forget(accountId);
  await nightly.forget(account);
  for (const made of [findable, related, clockOf]) made.forget(accountId);
  log.info({ accountId }, 'erased an account');
};
const events = accountEventLog(database, Date.now);
const notNoted = (error: unknown) => log.warn({ err: error }, 'of a session: not written down');
const app = createApp({
  config,
  log,
  accounts,
  sessions: sessionRepository(database, Date.now, notNoted),
  passkeys: passkeyRepository(database, Date.now),
  invitations: invitationRepository(database, Date.now),
  resetCodes: resetCodeRepository(database, Date.now),
  events,
  teller: accountTeller({ events, send, log, now: Date.now }),
  tries: triesIn(database, Date.now, notNoted),
  eraseAll,
  tokens: tokenRepository(database, Date.now),
  mailboxes,
  jobs,
  library,
  findable,
  related,
  echoes: (accountId) => echoSource(database, accountId, profilesOf(accountId)),
  files,
  podcasts,
  reminders,
  dossiers: dossierShelf(database, { findable, now: Date.now }),
  archives,
  nightly,
  incoming,
  send,
  database,
  clockOf,
  epoch: database.epoch,
  setupCode,
  bell,
  metrics,
  wakeRunner() {
    wakeCaptures();
    lookout.wake();
  },
  wakeSpeaker: reading.wake,
  wakePoster: posting.wake,
});
const server = app.listen(config.port, config.host, (error?: Error) => {
  if (error) {
    log.fatal({ err: error }, 'cannot listen');
    process.exit(1);
  }
  log.info({ port: (server.address() as AddressInfo).port }, 'listening');
});

const watched = config.metricsPort === null ? null : showMetrics(metrics, config.metricsPort, config.host, log);

// Longer than a proxy or a client keeps a connection that it does not use: who closes first must be them, or a request that
// is on its way meets a closed door.
server.keepAliveTimeout = 75_000;
server.headersTimeout = 80_000;
// A large archive on a slow line takes hours to arrive; what else is sent is small, and who sends nothing is cut off by its socket.
server.requestTimeout = 6 * 60 * 60 * 1000;
server.timeout = 10 * 60 * 1000;

const mail = config.mail
  ? mailListener({
      mailboxes,
      library,
      workshop: workshops.post,
      clockOf,
      now: Date.now,
      mostAnHour: 120,
      saved(accountId) {
        bell.ring(accountId);
        wakeCaptures();
      },
      log,
    })
  : null;
mail?.listen(config.mail?.port, config.host, () => log.info({ port: config.mail?.port }, 'taking mail'));

let stopping = false;
async function stop(signal: string) {
  if (stopping) return;
  stopping = true;
  clearInterval(erasing);
  stopHearing();
  archiving.forEach((each) => clearInterval(each));
  log.info({ signal }, 'stopping');
  server.close();
  mail?.close();
  watched?.close();
  const patience = setTimeout(() => server.closeAllConnections(), 2000);
  server.closeIdleConnections();
  // A capture that takes longer than this is recovered at the next start.
  await Promise.race([
    Promise.all([...runners, lookout, reading, posting].map((each) => each.stop())),
    new Promise((resolve) => setTimeout(resolve, 8000)),
  ]);
  clearTimeout(patience);
  server.closeAllConnections();
  await Promise.all(Object.values(workshops).map((workshop) => workshop.close()));
  await Promise.all([speaker.close(), archiveMaker.close()]);
  for (const letGo of [jobs.release, leader.stepDown])
    await letGo().catch((error: unknown) => log.error({ err: error }, 'not let go'));
  database.close();
  process.exit(0);
}
process.on('SIGTERM', () => void stop('SIGTERM'));
process.on('SIGINT', () => void stop('SIGINT'));
