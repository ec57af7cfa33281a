import { closeSync, createReadStream, createWriteStream, openSync, writeSync } from 'node:fs';
import { readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { MessagePort } from 'node:worker_threads';
import { withEmojiSaid } from '@dorvel/core/emoji';
import { SHIPPED_VOICES, type ShippedVoice, voiceFor } from '@dorvel/core/listening';
import { type Chapter, Copy } from '@dorvel/core/model';
import { titleUtterance, utterances } from '@dorvel/core/speech';
import { plainText } from '@dorvel/core/text';
import { createSpeaker, SAMPLE_RATE, silence, type Speaker } from '@dorvel/core/voice';
import startEngine from '@echogarden/svoxpico-wasm';
import NodeID3 from 'node-id3';
import { createMp3Encoder } from 'wasm-media-encoders';

/** What is to be made sound of, and where it goes. */
export interface SpeakTask {
  /** The copy as it is stored, not parsed yet: that takes its time. */
  record: string;
  title: string;
  source: string;
  target: string;
  /** The folder with the voices' files. */
  voices: string;
  /** Told how far it is, 0 to 1. */
  progress: MessagePort;
}

export interface SpokenFile {
  bytes: number;
  seconds: number;
  chapters: Chapter[];
}

/** Constant, so that an app can jump to any second without reading all before it. Speech is clear at this rate. */
const KBITS_PER_SECOND = 48;

/** Made once for all that this thread reads. */
let engine: Promise<Speaker> | undefined;

/**
 * Reads a copy aloud into an MP3 file, with its headings as chapters. Runs in a thread of its own.
 *
 * @throws RangeError when no voice that ships reads its language
 */
export default async function speak({
  record,
  title,
  source,
  target,
  voices,
  progress,
}: SpeakTask): Promise<SpokenFile> {
  const { tree, language } = Copy.parse(JSON.parse(record));
  const voice = voiceOf(language);
  if (!voice) throw new RangeError(`no voice reads ${language ?? 'this'}`);
  const spoken = [titleUtterance(title, source, '', language), ...utterances(tree, language)];
  const text = plainText(tree).text;
  engine ??= startEngine().then((module) => createSpeaker(module, withEmojiSaid));
  const speaker = await engine;
  const encoder = await createMp3Encoder();
  encoder.configure({ sampleRate: SAMPLE_RATE, channels: 1, bitrate: KBITS_PER_SECOND });
  const chapters: Chapter[] = [{ title, startSeconds: 0 }];
  let samples = 0;
  // The tags stand before the sound and tell its length: it is written beside until that is known, however long it is.
  const sound = openSync(`${target}.sound`, 'w');
  try {
    for (const [at, utterance] of spoken.entries()) {
      const { leadMs, pauseMs, kind, begins, start, end } = utterance;
      const lead = silence(leadMs);
      if (kind === 'heading' && begins)
        chapters.push({ title: text.slice(start, end), startSeconds: (samples + lead.length) / SAMPLE_RATE });
      // No language of its own is that of the text, not English.
      const said = (utterance.language === null ? null : voiceOf(utterance.language)) ?? voice;
      if (!speaker.has(said.id)) speaker.add(said, await filesOf(said, voices));
      const { pcm } = speaker.speak(utterance.said().text, said.id);
      for (const piece of [lead, pcm, silence(pauseMs)]) {
        samples += piece.length;
        writeSync(sound, encoder.encode([Float32Array.from(piece, (sample) => sample / 32_768)]));
      }
      if (at % 8 === 0) progress.postMessage(at / spoken.length);
    }
    writeSync(sound, encoder.finalize());
    const seconds = samples / SAMPLE_RATE;
    const tags = NodeID3.create(id3Tags(title, source, chapters, seconds));
    return { bytes: await joinedTo(target, tags, `${target}.sound`), seconds, chapters };
  } finally {
    closeSync(sound);
    await rm(`${target}.sound`, { force: true });
  }
}

const LANGUAGES = SHIPPED_VOICES.map(({ language }) => language);

/** The voice that reads a language; undefined where none does, and where it is said to be none. */
function voiceOf(language: string | null): ShippedVoice | undefined {
  return SHIPPED_VOICES[voiceFor(language, LANGUAGES)];
}

async function filesOf({ files: [words, sounds] }: ShippedVoice, folder: string): Promise<[Uint8Array, Uint8Array]> {
  return [await readFile(path.join(folder, words.name)), await readFile(path.join(folder, sounds.name))];
}

/** ID3v2 tags with chapters (id3.org, "ID3v2 Chapter Frame Addendum"), which many players read from the file itself. */
function id3Tags(title: string, artist: string, chapters: readonly Chapter[], seconds: number): NodeID3.Tags {
  const chapterIds = chapters.map((_, at) => `chapter${at}`);
  return {
    title,
    artist,
    album: 'Dorvel',
    chapter: chapters.map((chapter, at) => ({
      elementID: chapterIds[at] ?? '',
      startTimeMs: Math.round(chapter.startSeconds * 1000),
      endTimeMs: Math.round((chapters[at + 1]?.startSeconds ?? seconds) * 1000),
      tags: { title: chapter.title },
    })),
    tableOfContents: [{ elementID: 'contents', isOrdered: true, elements: chapterIds }],
  };
}

/** Written beside and renamed, so that a name never stands for half a file. @returns how many bytes it has */
async function joinedTo(target: string, tags: Buffer, sound: string): Promise<number> {
  const unfinished = `${target}.unfinished`;
  try {
    await writeFile(unfinished, tags);
    await pipeline(createReadStream(sound), createWriteStream(unfinished, { flags: 'a' }));
    await rename(unfinished, target);
  } catch (error) {
    await rm(unfinished, { force: true });
    throw error;
  }
  return (await stat(target)).size;
}
