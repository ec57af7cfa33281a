import { type ShippedVoice, VOICE_CACHE, type VoiceFile } from '@dorvel/core/listening';
/** Told how much of a voice has come, 0 to 1. */
type Told = (part: number) => void;

const addressOf = ({ name }: VoiceFile): string => `/voice/${name}`;

/** Where voices are kept; undefined where the browser keeps nothing for this address (no TLS, say). */
const kept = async (): Promise<Cache | undefined> =>
  'caches' in globalThis ? globalThis.caches.open(VOICE_CACHE) : undefined;

/** The files of a voice, from this device or from the server, and kept from then on. @throws Error when they cannot be had */
export async function voiceFiles(
  { files }: ShippedVoice,
  told: Told = () => undefined,
): Promise<[Uint8Array, Uint8Array]> {
  const [words, sounds] = files;
  const whole = words.bytes + sounds.bytes;
  const wordData = await fileOf(words, (bytes) => told(bytes / whole));
  const soundData = await fileOf(sounds, (bytes) => told((words.bytes + bytes) / whole));
  return [wordData, soundData];
}

/** Whether a voice is on this device. */
export async function isVoiceHere({ files }: ShippedVoice): Promise<boolean> {
  const cache = await kept();
  if (!cache) return false;
  const found = await Promise.all(files.map((file) => cache.match(addressOf(file))));
  return found.every(Boolean);
}

/** Takes a voice off this device. */
export async function dropVoice({ files }: ShippedVoice): Promise<void> {
  const cache = await kept();
  for (const file of files) await cache?.delete(addressOf(file));
}

async function fileOf(file: VoiceFile, told: (bytes: number) => void): Promise<Uint8Array> {
  const cache = await kept();
  const address = addressOf(file);
  const here = await cache?.match(address);
  if (here) {
    const data = new Uint8Array(await here.arrayBuffer());
    if (data.length === file.bytes) return data;
    await cache?.delete(address);
  }
  const answer = await fetch(address);
  if (!answer.ok || !answer.body) throw new Error(`the server has no ${file.name} (${answer.status})`);
  const data = new Uint8Array(file.bytes);
  let at = 0;
  for (let reader = answer.body.getReader(), next = await reader.read(); !next.done; next = await reader.read()) {
    if (at + next.value.length > data.length) throw new Error(`${file.name} is not what it should be`);
    data.set(next.value, at);
    at += next.value.length;
    told(at);
  }
  if (at !== data.length) throw new Error(`${file.name} broke off`);
  if (!(await isAsSaid(file, data))) throw new Error(`${file.name} is not what it should be`);
  // Without room for it the voice speaks all the same; it is fetched again another time.
  await cache
    ?.put(address, new Response(data, { headers: { 'content-type': 'application/octet-stream' } }))
    .catch(() => {
      console.warn(`no room on this device for ${file.name}`);
    });
  return data;
}

/** Whether a file is the one that ships: an engine is given nothing else. Where the browser cannot tell, without TLS, it may be. */
async function isAsSaid({ sha256 }: VoiceFile, data: Uint8Array<ArrayBuffer>): Promise<boolean> {
  // Only there where the address is safe, whatever its type says.
  const { subtle } = globalThis.crypto as { subtle?: SubtleCrypto };
  if (!subtle) return true;
  const hash = new Uint8Array(await subtle.digest('SHA-256', data));
  return [...hash].map((byte) => byte.toString(16).padStart(2, '0')).join('') === sha256;
}
