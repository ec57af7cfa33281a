import { createHash, webcrypto } from 'node:crypto';
import type { ShippedVoice } from '@dorvel/core/listening';
import { voiceFiles } from './voice-files';

const [words, sounds] = [new Uint8Array([1, 2, 3, 4]), new Uint8Array([5, 6, 7])];
const file = (name: string, data: Uint8Array) => ({
  name,
  bytes: data.length,
  sha256: createHash('sha256').update(data).digest('hex'),
});
const voice: ShippedVoice = {
  id: 'en-gb',
  language: 'en-GB',
  name: 'A voice',
  files: [file('words.bin', words), file('sounds.bin', sounds)],
  levelDb: 0,
};

/** A server with these files. */
function serve(files: Record<string, Uint8Array>): void {
  const answer = (address: string) => {
    const data = files[address];
    const parts = data ? [data.slice(0, 2), data.slice(2)] : [];
    const reader = {
      read: () => {
        const value = parts.shift();
        return Promise.resolve({ done: value === undefined, value });
      },
    };
    return Promise.resolve({ ok: data !== undefined, status: data ? 200 : 404, body: { getReader: () => reader } });
  };
  Object.assign(globalThis, { fetch: jest.fn(answer) });
}

beforeAll(() => Object.defineProperty(globalThis, 'crypto', { value: webcrypto, configurable: true }));

it('brings the files of a voice, and says how much has come', async () => {
  serve({ '/voice/words.bin': words, '/voice/sounds.bin': sounds });
  const told: number[] = [];
  expect(await voiceFiles(voice, (part) => told.push(part))).toEqual([words, sounds]);
  expect(told.at(-1)).toBe(1);
  expect(told).toEqual([...told].sort((a, b) => a - b));
});

it.each<[string, Record<string, Uint8Array>]>([
  [
    'another file of the same length',
    { '/voice/words.bin': new Uint8Array([1, 2, 3, 5]), '/voice/sounds.bin': sounds },
  ],
  ['a shorter one', { '/voice/words.bin': words.slice(0, 3), '/voice/sounds.bin': sounds }],
  ['a longer one', { '/voice/words.bin': new Uint8Array([1, 2, 3, 4, 5]), '/voice/sounds.bin': sounds }],
  ['none', { '/voice/words.bin': words }],
])('takes nothing else for them: %s', async (_what, files) => {
  serve(files);
  await expect(voiceFiles(voice)).rejects.toThrow(/not what it should be|broke off|has no/);
});
