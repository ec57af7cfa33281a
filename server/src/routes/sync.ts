import { EventEmitter } from 'node:events';
import { PullQuery, PullResponse, PushRequest, PushResponse, type PushResult } from '@dorvel/core/model';
import type { HybridClock } from '@dorvel/core/sync';
import { Router } from 'express';
import type { Library } from '../db/library';
import { accountOf } from './guard';
import { takeMutation } from './push';

const HEARTBEAT_MS = 25_000;

/** Tells the devices of an account that there is something to pull. */
export class ChangeBell {
  readonly #emitter = new EventEmitter().setMaxListeners(0);

  ring(accountId: string): void {
    this.#emitter.emit(accountId);
  }

  /** @returns a function that ends the listening */
  listen(accountId: string, heard: () => void): () => void {
    this.#emitter.on(accountId, heard);
    return () => this.#emitter.off(accountId, heard);
  }
}

interface SyncTools {
  library(accountId: string): Library;
  clock: HybridClock;
  bell: ChangeBell;
  /** Called when a capture may have been asked for. */
  wakeRunner(): void;
}

/** Devices send what they changed, and fetch what changed elsewhere. */
export function syncRoutes(tools: SyncTools): Router {
  const router = Router();

  router.post('/push', async (request, response) => {
    const { mutations } = PushRequest.parse(request.body);
    const library = tools.library(accountOf(response).id);
    const { results, cursor } = await library.change(async (write) => {
      const taken: PushResult[] = [];
      for (const mutation of mutations)
        taken.push(await takeMutation(write, mutation, { clock: tools.clock, now: Date.now }));
      return { results: taken, cursor: write.sequence };
    });
    tools.bell.ring(library.accountId);
    tools.wakeRunner();
    response.json(PushResponse.parse({ results, cursor }));
  });

  router.get('/pull', async (request, response) => {
    const { after } = PullQuery.parse(request.query);
    response.json(PullResponse.parse(await tools.library(accountOf(response).id).changesAfter(after)));
  });

  /** Server-sent events (WHATWG HTML, 9.2): an empty `changed` each time there is something to pull. */
  router.get('/events', (request, response) => {
    response.set({
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    response.flushHeaders();
    const send = () => response.write('event: changed\ndata: {}\n\n');
    send();
    const silence = tools.bell.listen(accountOf(response).id, send);
    const heartbeat = setInterval(() => response.write(': here\n\n'), HEARTBEAT_MS);
    request.on('close', () => {
      clearInterval(heartbeat);
      silence();
    });
  });

  return router;
}
