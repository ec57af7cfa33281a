import { closeSync, createReadStream, createWriteStream, openSync, writeSync } from 'node:fs';
import { rename, rm, stat, writeFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import type { MessagePort } from 'node:worker_threads';
import { type Chapter, Copy } from '@dorvel/core/model';
import { SHIPPED_LANGUAGES, titleUtterance, type Utterance, utterances, voiceFor } from '@dorvel/core/speech';
import { plainText, SPOKEN_WORDS_PER_MINUTE } from '@dorvel/core/text';
import init from '@echogarden/espeak-ng-emscripten';
import NodeID3 from 'node-id3';
import { createMp3Encoder } from 'wasm-media-encoders';

/** What is to be made sound of, and where it goes. */
export interface SpeakTask {
  /** The copy as it is stored, not parsed yet: that takes its time. */
  record: string;
  title: string;
  source: string;
  target: string;
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
const VOICES: Readonly<Record<(typeof SHIPPED_LANGUAGES)[number], string>> = {
  // So the engine's whole data calls British English.
  en: 'en',
  de: 'de',
  fr: 'fr',
  es: 'es',
};

/** Made once for all that this thread reads. */
let engine: ReturnType<typeof init> | undefined;

/**
 * Reads a copy aloud into an MP3 file, with its headings as chapters. Runs in a thread of its own.
 *
 * @throws RangeError when no voice that ships reads its language
 */
export default async function speak({ record, title, source, target, progress }: SpeakTask): Promise<SpokenFile> {
  const { tree, language } = Copy.parse(JSON.parse(record));
  const voice = voiceOf(language);
  if (!voice) throw new RangeError(`no voice reads ${language ?? 'this'}`);
  const spoken = [titleUtterance(title, source, '', language), ...utterances(tree, language)];
  const text = plainText(tree).text;
  engine ??= init();
  const speaker = new (await engine).eSpeakNGWorker();
  speaker.set_rate(SPOKEN_WORDS_PER_MINUTE);
  const sampleRate = speaker.get_samplerate();
  const encoder = await createMp3Encoder();
  encoder.configure({ sampleRate, channels: 1, bitrate: KBITS_PER_SECOND });
  const chapters: Chapter[] = [{ title, startSeconds: 0 }];
  let samples = 0;
  // The tags stand before the sound and tell its length: it is written beside until that is known, however long it is.
  const sound = openSync(`${target}.sound`, 'w');
  try {
    spoken.forEach((utterance, at) => {
      const lead = silence(utterance.leadMs, sampleRate);
      if (utterance.kind === 'heading' && utterance.begins)
        chapters.push({
          title: text.slice(utterance.start, utterance.end),
          startSeconds: (samples + lead.length) / sampleRate,
        });
      speaker.set_voice(voiceOf(utterance.language) ?? voice, '', 0, 0, 0);
      for (const piece of [lead, ...pieces(speaker, utterance), silence(utterance.pauseMs, sampleRate)]) {
        samples += piece.length;
        writeSync(sound, encoder.encode([piece]));
      }
      if (at % 8 === 0) progress.postMessage(at / spoken.length);
    });
    writeSync(sound, encoder.finalize());
    const seconds = samples / sampleRate;
    const tags = NodeID3.create(id3Tags(title, source, chapters, seconds));
    return { bytes: await joinedTo(target, tags, `${target}.sound`), seconds, chapters };
  } finally {
    closeSync(sound);
    await rm(`${target}.sound`, { force: true });
  }
}

function voiceOf(language: string | null): string | undefined {
  const at = voiceFor(language, SHIPPED_LANGUAGES);
  const found = SHIPPED_LANGUAGES[at];
  return found && VOICES[found];
}

type Speaker = InstanceType<Awaited<ReturnType<typeof init>>['eSpeakNGWorker']>;

function pieces(speaker: Speaker, { said }: Utterance): Float32Array[] {
  const made: Float32Array[] = [];
  const markup = said().text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
  speaker.synthesize(markup, (pcm) => {
    if (pcm) made.push(Float32Array.from(pcm, (sample) => sample / 32768));
    return false;
  });
  return made;
}

const silence = (ms: number, sampleRate: number) => new Float32Array(Math.round((ms / 1000) * sampleRate));

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
