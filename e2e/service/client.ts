import type { Item } from '@dorvel/core/model';
import type { Mutation } from '@dorvel/core/records';
import { createClock, PROTOCOL, PROTOCOL_HEADER, PullResponse, PushResponse, type PushResult } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';

/** A device without a screen, for trying the server by itself. */
export class Client {
  readonly #clock = createClock('client', Date.now);

  constructor(
    readonly origin: string,
    /** The session, as the browser would keep it. */
    public cookie = '',
  ) {}

  async call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Response> {
    const response = await fetch(`${this.origin}/api${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        'content-type': 'application/json',
        [PROTOCOL_HEADER]: String(PROTOCOL),
        ...headers,
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    this.cookie = response.headers.get('set-cookie')?.split(';')[0] ?? this.cookie;
    return response;
  }

  async signIn(): Promise<this> {
    await this.call('POST', '/session', {
      mail: 'ines@skerrow.example',
      passphrase: 'the tide waits for the ferry',
    });
    return this;
  }

  async push(...mutations: Mutation[]): Promise<PushResult[]> {
    return PushResponse.parse(await (await this.call('POST', '/sync/push', { mutations })).json()).results;
  }

  async save(address: string): Promise<string> {
    const itemId = uuidv7();
    await this.push({
      type: 'save',
      id: uuidv7(),
      itemId,
      address,
      savedAt: Date.now(),
      stamp: this.#clock.next(),
    });
    return itemId;
  }

  async items(): Promise<Item[]> {
    const items = new Map<string, Item>();
    for (let after = 0, more = true; more;) {
      const page = PullResponse.parse(await (await this.call('GET', `/sync/pull?after=${after}`)).json());
      for (const item of page.records.items) items.set(item.id, item);
      ({ cursor: after, more } = page);
    }
    return [...items.values()];
  }

  /** An item once its capture has come to an end. */
  async settled(itemId: string, seconds = 30): Promise<Item> {
    for (let tries = 0; tries < seconds * 5; tries++) {
      const item = (await this.items()).find((each) => each.id === itemId);
      if (item && (item.capture.state === 'arrived' || item.capture.state === 'failed')) return item;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
    throw new Error(`the capture of ${itemId} did not come to an end`);
  }
}
