import { Copy, type Feed, Item } from '@dorvel/core/model';
import { type ChangeMaker, changeMaker, type Mutation } from '@dorvel/core/records';
import { createClock, PROTOCOL, PROTOCOL_HEADER, PullResponse, PUSH_LIMIT, PushResponse } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';

/** What the seed asks of the server, as a device would. */
const server = process.env.DORVEL_ADDRESS ?? 'http://127.0.0.1:4800';
export const smallWebPort = Number(process.env.SMALL_WEB_PORT ?? 4810);
export const HOUR_MS = 60 * 60 * 1000;
export const DAY_MS = 24 * HOUR_MS;
const PATIENCE_MS = 240_000;

let cookie = '';
export async function call(method: string, path: string, body?: unknown): Promise<unknown> {
  const response = await fetch(`${server}/api${path}`, {
    method,
    headers: { cookie, 'content-type': 'application/json', [PROTOCOL_HEADER]: String(PROTOCOL) },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${method} ${path} answered ${response.status}: ${await response.text()}`);
  cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
  return response.json();
}

/** All items and feeds of the library as they stand now. */
export async function everything(): Promise<{ items: Item[]; feeds: Feed[] }> {
  const items: Item[] = [];
  const feeds: Feed[] = [];
  for (let after = 0, more = true; more;) {
    const page = PullResponse.parse(await call('GET', `/sync/pull?after=${after}`));
    items.push(...page.records.items);
    feeds.push(...page.records.feeds);
    ({ cursor: after, more } = page);
  }
  return { items, feeds };
}

export async function push(mutations: Mutation[]): Promise<void> {
  for (let at = 0; at < mutations.length; at += PUSH_LIMIT) {
    const { results } = PushResponse.parse(
      await call('POST', '/sync/push', { mutations: mutations.slice(at, at + PUSH_LIMIT) }),
    );
    const refused = results.find((result) => result.outcome !== 'applied');
    if (refused) throw new Error(`the seed was not taken: ${JSON.stringify(refused)}`);
  }
}

/** Makes changes as a device would have made them at an instant. */
export function madeAt(instant: number): ChangeMaker {
  const now = () => instant;
  return changeMaker({ clock: createClock('seed', now), newId: uuidv7, now });
}

/** This machine's calendar day of an instant. */
export function dayOf(instant: number): string {
  const day = new Date(instant);
  return `${day.getFullYear()}-${String(day.getMonth() + 1).padStart(2, '0')}-${String(day.getDate()).padStart(2, '0')}`;
}

/** All items, once no capture is under way any more. */
export async function settled(): Promise<Map<string, Item>> {
  return until('the captures did not come to an end', async () => {
    const { items } = await everything();
    return items.every(({ capture }) => capture.state === 'arrived' || capture.state === 'failed')
      ? new Map(items.map((item) => [item.id, item]))
      : null;
  });
}

/** Asks until there is an answer. @throws Error, with what it says, when there is none for too long */
export async function until<Answer>(says: string, ask: () => Promise<Answer | null>): Promise<Answer> {
  for (const deadline = Date.now() + PATIENCE_MS; Date.now() < deadline;) {
    const answer = await ask();
    if (answer !== null) return answer;
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  throw new Error(says);
}

/** The text of an item. @throws when it has none */
export async function copyOf(item: Item): Promise<Copy> {
  const { page } = item.capture;
  if (!page?.copyId) throw new Error(`${item.address} has no text to read`);
  return Copy.parse(await call('GET', `/copies/${page.copyId}`));
}
