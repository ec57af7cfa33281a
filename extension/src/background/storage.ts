import { Account, HowMuch, Id } from '@dorvel/core/model';
import { asChangesNow, Mutation } from '@dorvel/core/records';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';

/** What the extension keeps in the browser, each part under a key of its own. */

/** With whose library it is paired. */
export const Pairing = z.object({
  origin: z.url(),
  secret: z.string(),
  account: Account,
  /** The server does not know the token any more. */
  revoked: z.boolean().default(false),
});
export type Pairing = z.infer<typeof Pairing>;

const HOW_LONG = [5, 15, null] as const;

export const Settings = z.object({
  howMuch: HowMuch.exclude(['selected-part', 'picture']).default('words-and-pictures'),
  /** Seconds for which the panel stays by itself; null until it is closed. */
  staysSeconds: z.union(HOW_LONG.map((each) => z.literal(each))).default(5),
  /** Whether what is marked is shown on the pages themselves. */
  showsMarks: z.boolean().default(false),
  /** Addresses of pages that search the web, with %s where the words stand. */
  searches: z.array(z.string()).max(50).default([]),
  /** On which pages echoes are shown. */
  echoesOn: z.enum(['none', 'these', 'all']).default('none'),
  /** Hosts: those that are meant by "these", and those that never are. */
  echoSites: z.array(z.string()).max(500).default([]),
  echoesNotOn: z.array(z.string()).max(2000).default([]),
  echoDensity: z.enum(['few', 'more']).default('few'),
});
export type Settings = z.infer<typeof Settings>;

/** A change that waits to be sent, as the changes that it is now, and the account that it was made for: it goes to no other. */
const OutboxEntry = z
  .object({ accountId: Id, mutation: z.unknown() })
  .transform(({ accountId, mutation }) => ({ accountId, mutations: asChangesNow(mutation, uuidv7) }))
  .pipe(z.object({ accountId: Id, mutations: z.array(Mutation) }));
type OutboxEntry = z.infer<typeof OutboxEntry>;

/** What the server would not take. The address stays here until the reader has seen it. */
export const Refused = z.object({ address: z.string(), detail: z.string() });
export type Refused = z.infer<typeof Refused>;

const Ids = z.array(z.string());

async function read<Schema extends z.ZodType>(key: string, schema: Schema): Promise<z.infer<Schema> | undefined> {
  return schema.safeParse((await chrome.storage.local.get(key))[key]).data;
}

export const storage = {
  pairing: () => read('pairing', Pairing),
  setPairing: (pairing: Pairing) => chrome.storage.local.set({ pairing }),
  unpair: () => chrome.storage.local.remove('pairing'),

  async settings(): Promise<Settings> {
    return (await read('settings', Settings)) ?? Settings.parse({});
  },
  setSettings: (settings: Settings) => chrome.storage.local.set({ settings }),

  /** Names this browser in the stamps of its changes. */
  async device(): Promise<string> {
    const known = await read('device', z.string().regex(/^[a-z0-9]{12}$/));
    if (known) return known;
    const device = crypto.randomUUID().replaceAll('-', '').slice(0, 12);
    await chrome.storage.local.set({ device });
    return device;
  },

  /** The latest stamp given out, so that the clock does not go back when the browser has put the extension to sleep. */
  lastStamp: () => read('stamp', z.string()),

  /** How far the server's clock was ahead of this one when it was seen last, in milliseconds. */
  async serverAheadMs(): Promise<number> {
    return (await read('serverAhead', z.number())) ?? 0;
  },
  setServerAheadMs: (serverAhead: number) => chrome.storage.local.set({ serverAhead }),

  outbox: {
    async ids(): Promise<string[]> {
      return (await read('outbox', Ids)) ?? [];
    },
    async get(id: string): Promise<OutboxEntry | undefined> {
      return read(`out:${id}`, OutboxEntry);
    },
    /** In one writing, so that nothing is half there when the browser ends. */
    async add(accountId: string, mutations: readonly Mutation[]): Promise<void> {
      await navigator.locks.request('outbox', async () => {
        const ids = await storage.outbox.ids();
        await chrome.storage.local.set({
          ...Object.fromEntries(mutations.map((mutation) => [`out:${mutation.id}`, { accountId, mutation }])),
          outbox: [...ids, ...mutations.map(({ id }) => id)],
          stamp: mutations.at(-1)?.stamp,
        });
      });
    },
    async remove(gone: readonly string[]): Promise<void> {
      await navigator.locks.request('outbox', async () => {
        const ids = await storage.outbox.ids();
        await chrome.storage.local.set({ outbox: ids.filter((id) => !gone.includes(id)) });
        await chrome.storage.local.remove(gone.map((id) => `out:${id}`));
      });
    },
  },

  async refused(): Promise<Refused[]> {
    return (await read('refused', z.array(Refused))) ?? [];
  },
  async addRefused(more: readonly Refused[]): Promise<void> {
    await chrome.storage.local.set({ refused: [...(await storage.refused()), ...more].slice(-500) });
  },
  forgetRefused: () => chrome.storage.local.remove('refused'),
};
