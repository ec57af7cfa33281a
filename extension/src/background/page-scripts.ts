import { type Settings, storage } from './storage';

/** Every page of the web, as match patterns. */
export const EVERYWHERE = ['http://*/*', 'https://*/*'];

/** A script that stands in pages while the reader wants it there. */
interface PageScript {
  /** Also the name of its file. */
  id: string;
  runAt: chrome.extensionTypes.RunAt;
  /** The pages on which it is wanted, as match patterns; none where it is not. */
  matches(settings: Settings): readonly string[];
  /** And those of them on which it is not. */
  except?(settings: Settings): readonly string[];
}

/** Keeps a script on the pages that the reader wants it on and has let the extension in to, and on no other. */
export function keepInPages(script: PageScript): void {
  const update = () => void navigator.locks.request(`script ${script.id}`, () => register(script));
  chrome.storage.onChanged.addListener((changes) => {
    if ('settings' in changes) update();
  });
  chrome.runtime.onInstalled.addListener(update);
}

async function register({ id, runAt, matches, except }: PageScript): Promise<void> {
  const settings = await storage.settings();
  const granted: string[] = [];
  for (const pattern of new Set(matches(settings)))
    if (await chrome.permissions.contains({ origins: [pattern] })) granted.push(pattern);
  const [known] = await chrome.scripting.getRegisteredContentScripts({ ids: [id] });
  if (known) await chrome.scripting.unregisterContentScripts({ ids: [id] });
  if (granted.length === 0) return;
  const excludeMatches = [...(except?.(settings) ?? [])];
  await chrome.scripting.registerContentScripts([{ id, matches: granted, excludeMatches, js: [`${id}.js`], runAt }]);
}

/** Asks the browser to be let in to pages. @returns whether it is */
export function requestPages(origins: string[]): Promise<boolean> {
  return chrome.permissions.request({ origins });
}

/** The host that a reader wrote down, as a name or as an address; null when it is none. */
export function readHost(written: string): string | null {
  const address = /^https?:/i.test(written.trim()) ? written.trim() : `https://${written.trim()}`;
  return URL.canParse(address) ? new URL(address).hostname || null : null;
}
