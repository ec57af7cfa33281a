import type { HybridClock } from '@dorvel/core/sync';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { AccountTeller } from './accounts/account-teller';
import type { Accounts } from './accounts/accounts';
import type { AccountEvents } from './accounts/events';
import type { Invitations } from './accounts/invitations';
import type { Mailboxes } from './accounts/mailboxes';
import type { Passkeys } from './accounts/passkeys';
import type { ResetCodes } from './accounts/reset-codes';
import type { Sessions } from './accounts/sessions';
import type { Tokens } from './accounts/tokens';
import type { Tries } from './accounts/tries';
import type { IncomingArchives } from './archive/incoming';
import type { NightlyArchives } from './archive/nightly';
import type { ArchiveShelf } from './archive/shelf';
import type { Config } from './config';
import type { Database } from './db/open';
import type { FileStore } from './files/files';
import type { Jobs } from './jobs/queue';
import type { ChangeBell } from './library/bell';
import type { echoSource } from './library/echoes';
import type { FindableLibrary } from './library/findable';
import type { Library } from './library/library';
import type { RelatedLibrary } from './library/related';
import { REQUEST_WORDS } from './operating/log';
import type { Metrics } from './operating/metrics';
import type { Dossiers } from './publish/dossiers';
import type { Podcasts } from './publish/podcasts';
import type { Reminders, SendLetter } from './publish/reminders';
import { accountRoutes } from './routes/account';
import { archiveRoutes } from './routes/archive';
import { dossierRoutes } from './routes/dossiers';
import { extensionRoutes } from './routes/extension';
import { findRoutes } from './routes/find';
import { refuseForeignHosts, refuseForgery, refuseOldClients, requireAccount } from './routes/guard';
import { healthRoutes } from './routes/health';
import { jsonBody } from './routes/json-body';
import { libraryRoutes } from './routes/library';
import { mailboxRoutes } from './routes/mailbox';
import { openApiRoutes } from './routes/openapi';
import { podcastRoutes, publicPodcastRoutes } from './routes/podcast';
import { problemHandler, unknownRoute } from './routes/problem';
import { publicReminderRoutes, reminderRoutes } from './routes/reminders';
import { savePageRoutes } from './routes/save-page';
import { sessionRoutes } from './routes/session';
import { shownRoutes } from './routes/shown';
import { syncRoutes } from './routes/sync';
import { tokenRoutes } from './routes/tokens';
import { limitRate } from './routes/tries';
import { devWebRoutes, webRoutes } from './routes/web';

export interface AppParts {
  config: Config;
  log: Logger;
  accounts: Accounts;
  sessions: Sessions;
  passkeys: Passkeys;
  invitations: Invitations;
  resetCodes: ResetCodes;
  events: AccountEvents;
  teller: AccountTeller;
  tries: Tries;
  /** Erases an account with all that is kept of it anywhere. */
  eraseAll(accountId: string): Promise<void>;
  tokens: Tokens;
  mailboxes: Mailboxes;
  jobs: Jobs;
  library(accountId: string): Library;
  findable(accountId: string): FindableLibrary;
  related(accountId: string): RelatedLibrary;
  echoes(accountId: string): ReturnType<typeof echoSource>;
  files: FileStore;
  podcasts: Podcasts;
  reminders: Reminders;
  dossiers: Dossiers;
  archives: ArchiveShelf;
  incoming: IncomingArchives;
  nightly: NightlyArchives;
  /** Null where this server sends no mail. */
  send: SendLetter | null;
  database: Database;
  clockOf(accountId: string): HybridClock;
  epoch: string;
  setupCode: string;
  bell: ChangeBell;
  metrics: Metrics;
  wakeRunner(): void;
  wakeSpeaker(): void;
  wakePoster(): void;
}

/** The server's routes over its parts. No part is made here. */
export function createApp(parts: AppParts): Express {
  const { config, sessions, log } = parts;
  const app = express();
  app.disable('x-powered-by');
  if (config.secure) app.set('trust proxy', 1);
  app.use(parts.metrics.timing);
  app.use(securityHeaders(config));
  app.use(
    compression({
      // A stream of events must not wait in a buffer until it is worth compressing; a voice is a quarter smaller for it, though
      // its type does not say so.
      filter: (request, response) =>
        request.originalUrl !== '/api/sync/events' &&
        (/^\/voice\/[\w-]+\.bin$/.test(request.path) || compression.filter(request, response)),
    }),
  );
  app.use(
    '/api',
    pinoHttp({
      logger: log,
      autoLogging: { ignore: (request) => request.url === '/sync/events' },
      // What is written of requests is for the log to say: see operating/log.ts.
      serializers: REQUEST_WORDS,
      wrapSerializers: false,
      customLogLevel: (_request, response, error) =>
        error || response.statusCode >= 500 ? 'error' : response.statusCode >= 400 ? 'info' : 'debug',
    }),
  );
  app.use(['/healthz', '/readyz'], limitRate(600, 1));
  app.use(healthRoutes(parts));
  app.use(refuseForeignHosts(config.hosts));
  const signedIn = requireAccount(sessions, config.secure);
  app.use('/api', (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  // A device that gets a large library asks some hundreds of times a second; nothing of ours asks more.
  app.use('/api', limitRate(60_000, 1));
  // An extension stands on no site of ours: its token is what lets it in, and no cookie counts.
  app.use('/api/extension', extensionRoutes(parts));
  app.use('/api', openApiRoutes());
  app.use('/api', refuseForgery);
  app.use('/api', sessionRoutes(parts));
  app.use(['/api/sync/push', '/api/sync/pull'], refuseOldClients);
  // Nothing large is read for who has not signed in.
  app.use('/api', signedIn, jsonBody('8mb'));
  app.use('/api/sync', syncRoutes(parts));
  app.use(
    '/api',
    libraryRoutes(parts.library, parts.files),
    findRoutes(parts.findable),
    accountRoutes(parts),
    tokenRoutes(parts.tokens, parts.events),
    mailboxRoutes(parts.mailboxes, config.mail?.domain ?? null),
    podcastRoutes(parts),
    reminderRoutes(parts.reminders, parts.wakePoster),
    dossierRoutes(parts),
    archiveRoutes(parts),
  );
  app.use('/api', unknownRoute);
  app.use('/podcast', publicPodcastRoutes(parts.podcasts, parts.wakeSpeaker));
  app.use('/come-back', publicReminderRoutes(parts.reminders, parts.database));
  app.use('/shown', shownRoutes({ ...parts, secure: config.secure }));
  app.use(savePageRoutes(parts));
  app.use(config.devApp ? devWebRoutes(config.devApp) : webRoutes(config.webFolder));
  app.use(problemHandler(log));
  return app;
}

function securityHeaders(config: Config) {
  // Metro's development client runs inline script and eval; the policy is for what readers get.
  if (config.devApp) return helmet({ contentSecurityPolicy: false });
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        // The hash is that of an empty style element, which react-native-web makes and then fills by script (CSSOM).
        styleSrc: ["'self'", "'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='"],
        // What is to be saved is shown from the device's own memory.
        imgSrc: ["'self'", 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        // The voice's sounds are made on the device and played from its memory.
        mediaSrc: ["'self'", 'blob:'],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        formAction: ["'self'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: config.secure,
    referrerPolicy: { policy: 'no-referrer' },
  });
}
