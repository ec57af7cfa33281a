import { ServerProblem, Unreachable } from '@dorvel/core/client';
import type { FindResponse, Passage, Scope, SearchRequest, SearchResult } from '@dorvel/core/model';
import { proxy, type Remote, wrap } from 'comlink';
import { startTransition, useEffect, useMemo, useState } from 'react';
import { useAccount } from '@/device/store/account';
import { usePaceFactors } from '@/device/store/pace';
import { api } from '@/device/sync/api';
import { useSync } from '@/device/sync/sync-loop';
import type { Finding } from './finding';

let worker: Remote<Finding> | undefined;
const listeners = new Set<() => void>();

/** The worker that finds, started when it is first needed. */
function finding(): Remote<Finding> {
  worker ??= wrap<Finding>(new Worker('/workers/find.js', { type: 'module' }));
  return worker;
}

const tellChanged = () => listeners.forEach((each) => each());

interface Shown {
  question: SearchRequest;
  answer: SearchResult;
  passages: Readonly<Record<string, Passage | null>>;
}

/**
 * Has the worker get ready, where the reader may soon look for something: a large library takes it seconds. Not while the
 * library comes for the first time: it would take each part of it apart as it comes.
 */
export function useFindReady(isNear: boolean): void {
  const accountId = useAccount((state) => state.account?.id);
  const isThere = useSync((state) => state.settled);
  useEffect(() => {
    if (!isNear || !isThere || accountId === undefined) return undefined;
    const timer = setTimeout(() => void finding().open(accountId, proxy(tellChanged)).catch(reportError), READY_MS);
    return () => clearTimeout(timer);
  }, [isNear, isThere, accountId]);
}

/** What is on screen comes first, and what the reader does with it. */
const READY_MS = 8000;

/** Where the device is not ready to look by then, the server is asked meanwhile. */
const PATIENCE_MS = 250;
/** Once it was not ready, it is not waited for again until it is. */
let patienceMs = PATIENCE_MS;
const NOTHING_HERE: SearchResult = { by: 'all', ids: [], count: null, also: [], faults: [], tags: [], withoutText: 0 };

/** Passages are sought for this many at a time. */
const PASSAGES_AT_ONCE = 12;

/** The server is asked when the reader pauses, not at each letter. */
const PAUSE_MS = 300;
const MAX_PASSAGES = 50;

/**
 * Asks the server, which has all texts; what only this device has yet, such as a save that waits to be sent, is kept.
 *
 * @returns null when the server cannot be reached or cannot answer: what this device found stands
 */
async function findEverywhere(
  question: SearchRequest,
  wanted: number,
  ofDevice: SearchResult,
): Promise<FindResponse | null> {
  try {
    const whole = await api.find(question, Math.min(wanted, MAX_PASSAGES));
    if (whole.answer.by !== ofDevice.by) return whole;
    const known = new Set(whole.answer.ids);
    const ids = [...whole.answer.ids, ...ofDevice.ids.filter((id) => !known.has(id))];
    const named = new Set(ids);
    const also = whole.answer.also.filter((id) => !named.has(id));
    const count = whole.answer.count !== null && whole.answer.count > ids.length ? whole.answer.count : null;
    return { ...whole, answer: { ...whole.answer, ids, count, also } };
  } catch (error) {
    if (error instanceof Unreachable || error instanceof ServerProblem) return null;
    throw error;
  }
}

/** Goes up when what there is to find has changed. */
function useVersion(): number {
  const [version, setVersion] = useState(0);
  useEffect(() => {
    const changed = () => setVersion((before) => before + 1);
    listeners.add(changed);
    return () => void listeners.delete(changed);
  }, []);
  return version;
}

const NOTHING_FOUND: ReadonlyMap<string, readonly string[]> = new Map();

/**
 * What each of some queries finds on this device, best first, kept up to date as the library changes.
 *
 * @param written the queries, a line each: the same as long as they are
 * @returns ids of items by query; what is not in it is being looked for
 */
export function useFoundByQuery(written: string): ReadonlyMap<string, readonly string[]> {
  const accountId = useAccount((state) => state.account?.id);
  const version = useVersion();
  const paces = usePaceFactors();
  const [found, setFound] = useState(NOTHING_FOUND);
  useEffect(() => {
    if (written === '' || accountId === undefined) return undefined;
    let isWanted = true;
    const ask = async () => {
      await finding().open(accountId, proxy(tellChanged));
      const zoneMinutes = -new Date().getTimezoneOffset();
      const answers = new Map<string, readonly string[]>();
      for (const query of written.split('\n')) {
        const asked: SearchRequest = { written: query, scope: 'all', typing: false, zoneMinutes, paces };
        const { by, ids } = await finding().find(asked);
        // What has only some of it would fill a set with what was not asked for.
        answers.set(query, by === 'all' ? ids : []);
      }
      if (isWanted) setFound(answers);
    };
    void ask();
    return () => void (isWanted = false);
  }, [accountId, written, version, paces]);
  return found;
}

/**
 * What is found for a query, kept up to date as the library changes; the former answer stays until the next is there, or until
 * what is drawn without it is.
 *
 * @param written the query; empty for none
 * @param wanted how many passages are on screen
 */
export function useFind(
  written: string,
  scope: Scope,
  typing: boolean,
  wanted: number,
): { shown: Shown | null; failed: boolean } {
  const accountId = useAccount((state) => state.account?.id);
  const [shown, setShown] = useState<Shown | null>(null);
  const [failed, setFailed] = useState(false);
  const online = useSync((state) => state.online);
  const version = useVersion();
  const paces = usePaceFactors();
  const question = useMemo<SearchRequest>(
    () => ({ written, scope, typing, zoneMinutes: -new Date().getTimezoneOffset(), paces }),
    [written, scope, typing, paces],
  );
  const asked = written.trim() === '' || accountId === undefined ? null : accountId;
  useEffect(() => {
    if (asked === null) {
      // What was found goes with the list that shows it.
      startTransition(() => setShown(null));
      return undefined;
    }
    let wantedStill = true;
    const isWanted = () => wantedStill;
    const ask = async () => {
      let isReady = false;
      const opening = finding()
        .open(asked, proxy(tellChanged))
        .then(() => {
          isReady = true;
          patienceMs = PATIENCE_MS;
        });
      const isSlow = () => !isReady;
      await Promise.race([opening, new Promise((resolve) => setTimeout(resolve, patienceMs))]);
      if (isSlow()) patienceMs = 0;
      const meanwhile = isSlow() && online ? await findEverywhere(question, wanted, NOTHING_HERE) : null;
      if (meanwhile && isWanted() && isSlow()) startTransition(() => setShown({ question, ...meanwhile }));
      await opening;
      const answer = await finding().find(question);
      if (!isWanted()) return;
      // A list that is exchanged must not hold up the next letter.
      startTransition(() => {
        setShown((before) => ({
          question,
          answer,
          passages: before?.question === question ? before.passages : {},
        }));
        setFailed(false);
      });
      const passages = (found: Shown['passages']) =>
        startTransition(() =>
          setShown((before) => before && { ...before, passages: { ...before.passages, ...found } }),
        );
      const listed = [...answer.ids, ...answer.also];
      for (let at = 0; at < Math.min(wanted, listed.length); at += PASSAGES_AT_ONCE) {
        const found = await finding().passages(question, listed.slice(at, at + PASSAGES_AT_ONCE));
        if (!isWanted()) return;
        passages(found);
      }
      if (answer.withoutText === 0 || !online) return;
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
      if (!isWanted()) return;
      const whole = await findEverywhere(question, wanted, answer);
      if (!whole || !isWanted()) return;
      startTransition(() => setShown({ question, answer: whole.answer, passages: {} }));
      passages(whole.passages);
    };
    ask().catch((error: unknown) => {
      reportError(error);
      if (isWanted()) setFailed(true);
    });
    return () => void (wantedStill = false);
  }, [asked, question, version, wanted, online]);
  return { shown, failed };
}
