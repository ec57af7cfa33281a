import { type HybridClock, PullQuery, PushRequest, PushResponse } from '@dorvel/core/sync';
import { Router } from 'express';
import type { Logger } from 'pino';
import type { Sessions } from '../accounts/sessions';
import type { ChangeBell } from '../library/bell';
import type { Library } from '../library/library';
import { takePush } from '../library/take-mutations';
import type { Metrics } from '../operating/metrics';
import { accountOf, sessionOf } from './guard';

const HEARTBEAT_MS = 25_000;

interface SyncTools {
  library(accountId: string): Library;
  sessions: Sessions;
  clockOf(accountId: string): HybridClock;
  epoch: string;
  log: Logger;
  bell: ChangeBell;
  metrics: Metrics;
  /** Called when a capture may have been asked for. */
  wakeRunner(): void;
}

/** Devices send what they changed, and fetch what changed elsewhere. */
export function syncRoutes(tools: SyncTools): Router {
  const router = Router();
  const says = () => ({ now: Date.now(), epoch: tools.epoch });

  router.post('/push', async (request, response) => {
    const { mutations } = PushRequest.parse(request.body);
    const library = tools.library(accountOf(response).id);
    const clock = tools.clockOf(library.accountId);
    const taken = await takePush(library, { mutations }, { clock, now: Date.now });
    tools.metrics.changed(library.accountId);
    tools.bell.ring(library.accountId);
    tools.wakeRunner();
    response.json(PushResponse.parse({ ...taken, ...says() }));
  });

  router.get('/pull', async (request, response) => {
    const { after } = PullQuery.parse(request.query);
    const { id } = accountOf(response);
    const { records, unread, ...head } = await tools.library(id).changesAfter(after);
    tools.metrics.fetched(id);
    if (unread > 0) tools.log.error({ accountId: id, unread }, 'records cannot be read: npm run doctor');
    response.json({ ...records, ...head, ...says() });
  });

  /** Server-sent events (WHATWG HTML, 9.2): an empty `changed` each time there is something to pull. */
  router.get('/events', (_request, response) => {
    response.set({
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    response.flushHeaders();
    const send = () => response.write('event: changed\ndata: {}\n\n');
    send();
    const sessionId = sessionOf(response);
    // Who has signed out hears no more, on whatever connection.
    const end = () => void response.end();
    const silences = [tools.bell.listen(accountOf(response).id, send), tools.bell.listen(sessionId, end)];
    const heartbeat = setInterval(() => {
      response.write(': here\n\n');
      void tools.sessions.isOpen(sessionId).then((isOpen) => isOpen || end(), end);
    }, HEARTBEAT_MS);
    response.on('close', () => {
      clearInterval(heartbeat);
      for (const silence of silences) silence();
    });
  });

  return router;
}
