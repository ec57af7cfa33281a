import { readFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { SHIPPED_VOICES, type ShippedVoice } from '../listening';
import { createSpeaker, type PicoModule, type Speaker } from '.';

/** Where the project keeps the voices' files. */
export const VOICES_FOLDER = path.resolve(__dirname, '../../../app/voices');

export const fileOf = (name: string): Uint8Array => new Uint8Array(readFileSync(path.join(VOICES_FOLDER, name)));

/** The engine, started where Jest cannot bring in a module that asks for its own address. */
async function startEngine(): Promise<PicoModule> {
  const file = require.resolve('@echogarden/svoxpico-wasm');
  const source = readFileSync(file, 'utf8')
    .replaceAll('import.meta.url', JSON.stringify(pathToFileURL(file).href))
    .replace("await import('module')", "nodeRequire('node:module')")
    .replace(/export default (\w+);/, 'return $1;');
  // eslint-disable-next-line @typescript-eslint/no-implied-eval
  const start = new Function('nodeRequire', '__dirname', source) as (
    ...words: unknown[]
  ) => (options: object) => Promise<PicoModule>;
  return start(require, path.dirname(file))({});
}

/** A speaker with some of the voices that ship; all of them where none is named. */
export async function testSpeaker(voices: readonly ShippedVoice[] = SHIPPED_VOICES): Promise<Speaker> {
  const speaker = createSpeaker(await startEngine());
  for (const voice of voices) speaker.add(voice, [fileOf(voice.files[0].name), fileOf(voice.files[1].name)]);
  return speaker;
}
