import { storage } from './storage';

export const ACCOUNT = { id: '019a0000-0000-7000-8000-000000000001', mail: 'a@example.org', name: 'A' };

/** The browser's storage, alarms and locks, as far as they are used here. */
function fakeBrowser() {
  const stored = new Map<string, unknown>();
  const alarms = new Set<string>();
  const locks = { last: Promise.resolve() as Promise<unknown> };
  Object.assign(globalThis, {
    chrome: {
      storage: {
        local: {
          get: async (key: string) => (stored.has(key) ? { [key]: structuredClone(stored.get(key)) } : {}),
          set: async (values: Record<string, unknown>) => {
            for (const [key, value] of Object.entries(values)) stored.set(key, structuredClone(value));
          },
          remove: async (keys: string | string[]) => {
            for (const key of [keys].flat()) stored.delete(key);
          },
        },
      },
      alarms: {
        create: async (name: string) => void alarms.add(name),
        clear: async (name: string) => alarms.delete(name),
      },
    },
  });
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: {
      locks: {
        request: (_name: string, work: () => Promise<unknown>) => (locks.last = locks.last.then(work)),
      },
    },
  });
  return { stored, alarms };
}

/** The same, paired with a library. */
export async function pairedBrowser() {
  const browser = fakeBrowser();
  await storage.setPairing({
    origin: 'https://library.example',
    secret: 's'.repeat(43),
    account: ACCOUNT,
    revoked: false,
  });
  return browser;
}
