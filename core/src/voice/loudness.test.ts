import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { SHIPPED_VOICES } from '../listening';
import { joined, SAMPLE_RATE, type Speaker } from '.';
import { testSpeaker } from './engine.test-data';

/** Articles 1, 3 and 15 of the Universal Declaration of Human Rights (United Nations), in each language's own words. */
const DECLARATION: Readonly<Record<string, readonly string[]>> = {
  en: [
    'All human beings are born free and equal in dignity and rights.',
    'Everyone has the right to life, liberty and security of person.',
    'Everyone has the right to a nationality.',
  ],
  de: [
    'Alle Menschen sind frei und gleich an Würde und Rechten geboren.',
    'Jeder hat das Recht auf Leben, Freiheit und Sicherheit der Person.',
    'Jeder hat das Recht auf eine Staatsangehörigkeit.',
  ],
  fr: [
    'Tous les êtres humains naissent libres et égaux en dignité et en droits.',
    'Tout individu a droit à la vie, à la liberté et à la sûreté de sa personne.',
    'Tout individu a droit à une nationalité.',
  ],
  es: [
    'Todos los seres humanos nacen libres e iguales en dignidad y derechos.',
    'Todo individuo tiene derecho a la vida, a la libertad y a la seguridad de su persona.',
    'Toda persona tiene derecho a una nacionalidad.',
  ],
  it: [
    'Tutti gli esseri umani nascono liberi ed eguali in dignità e diritti.',
    'Ogni individuo ha diritto alla vita, alla libertà ed alla sicurezza della propria persona.',
    'Ogni individuo ha diritto ad una cittadinanza.',
  ],
};
/** Of all voices and sentences, in loudness units. */
const WITHIN_LU = 1.5;

const meter = '/usr/bin/ffmpeg';
const withMeter = existsSync(meter) ? it : it.skip;
let folder: string;
let speaker: Speaker;
beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'loudness-'));
  speaker = await testSpeaker();
});
afterAll(() => rmSync(folder, { recursive: true }));

/** The integrated loudness of a sound by EBU R 128, as ffmpeg measures it, in LUFS. */
function loudnessOf(pcm: Int16Array): number {
  const file = path.join(folder, 'sound.raw');
  writeFileSync(file, Buffer.from(pcm.buffer, pcm.byteOffset, pcm.byteLength));
  const input = ['-f', 's16le', '-ar', String(SAMPLE_RATE), '-ac', '1', '-i', file];
  const { stderr } = spawnSync(meter, ['-nostats', ...input, '-af', 'ebur128', '-f', 'null', '-'], {
    encoding: 'utf8',
  });
  return Number(/I:\s+(-[\d.]+) LUFS/.exec(stderr.slice(stderr.lastIndexOf('Summary')))?.[1]);
}

describe('loudness', () => {
  withMeter('is the same for all voices, languages and sentences, and nothing is clipped', () => {
    const sentences: number[] = [];
    const voices: number[] = [];
    for (const { id, language } of SHIPPED_VOICES) {
      const sounds = (DECLARATION[language.slice(0, 2)] ?? []).map((text) => speaker.speak(text, id).pcm);
      sentences.push(...sounds.map(loudnessOf));
      voices.push(loudnessOf(joined(sounds)));
      for (const pcm of sounds) expect(pcm.every((sample) => Math.abs(sample) < 32_767)).toBe(true);
    }
    expect(sentences).toHaveLength(3 * SHIPPED_VOICES.length);
    expect(Math.max(...sentences) - Math.min(...sentences)).toBeLessThanOrEqual(WITHIN_LU);
    expect(Math.max(...voices) - Math.min(...voices)).toBeLessThanOrEqual(WITHIN_LU / 3);
    // Where programmes for small loudspeakers are put; common practice is −16 to −19.
    for (const loudness of voices) expect(Math.abs(loudness + 17.5)).toBeLessThan(1.5);
  });
});
