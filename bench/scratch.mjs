// npm run bench -- voice: how well the voice that ships is understood by a recogniser, beside a formant synthesizer; how fast it
// is made; and what a listener waits for, in headless Chromium at 4x CPU throttle.
import { execFileSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import formants from '@echogarden/espeak-ng-emscripten';
import startEngine from '@echogarden/svoxpico-wasm';
import wavefile from 'wavefile';
import { say } from '../core/src/speech/say.ts';
import { sentences } from '../core/src/text/index.ts';
import { createSpeaker, SHIPPED_VOICES } from '../core/src/voice/index.ts';
import { wordsOf } from '../core/src/voice/marks.ts';
import { ensureFromDebian, root } from '../scripts/steps.mjs';

// IEEE Recommended Practice for Speech Quality Measurements (1969), lists 1 to 4, from memory.
const HARVARD =
  `The birch canoe slid on the smooth planks. Glue the sheet to the dark blue background. It's easy to tell the depth of a well.
These days a chicken leg is a rare dish. Rice is often served in round bowls. The juice of lemons makes fine punch. The box was thrown beside the parked truck.
The hogs were fed chopped corn and garbage. Four hours of steady work faced us. A large size in stockings is hard to sell. The boy was there when the sun rose.
A rod is used to catch pink salmon. The source of the huge river is the clear spring. Kick the ball straight and follow through. Help the woman get back to her feet.
A pot of tea helps to pass the evening. Smoky fires lack flame and heat. The soft cushion broke the man's fall. The salt breeze came across from the sea.
The girl at the booth sold fifty bonds. The small pup gnawed a hole in the sock. The fish twisted and turned on the bent hook. Press the pants and sew a button on the vest.
The swan dive was far short of perfect. The beauty of the view stunned the young boy. Two blue fish swam in the tank. Her purse was full of useless trash.
The colt reared and threw the tall rider. It snowed, rained, and hailed the same morning. Read verse out loud for pleasure. Hoist the load to your left shoulder.
Take the winding path to reach the lake. Note closely the size of the gas tank. Wipe the grease off his dirty face. Mend the coat before you go out.
The wrist was badly strained and hung limp. The stray cat gave birth to kittens. The young girl gave no clear response. The meal was cooked before the bell rang. What joy there is in living.`
    .replace(/\s+/g, ' ')
    .split(/(?<=\.) /);
const SPEEDS = [1, 1.5, 2];

const work = '/tmp/voicework';
rmSync(work, { recursive: true, force: true });
mkdirSync(work, { recursive: true });
// The recogniser takes half an hour for its four rows.
const isQuick = process.argv.includes('--quick');
const word = (name) => process.argv.find((each) => each.startsWith(`--${name}=`))?.slice(name.length + 3);
/** `--row=formants, British` has it write down one voice alone. */
const onlyRow = word('row') ?? '';
const recogniser = isQuick
  ? 'none'
  : ensureFromDebian(
      'pocketsphinx_continuous',
      ['/usr/bin/pocketsphinx_continuous'],
      ['pocketsphinx', 'pocketsphinx-en-us'],
    );
const ffmpeg = ensureFromDebian('ffmpeg');
if (!recogniser || !ffmpeg) throw new Error('These measurements need pocketsphinx and ffmpeg, from Debian.');

const speaker = createSpeaker(await startEngine());
const voices = path.join(root, 'app/voices');
for (const voice of SHIPPED_VOICES)
  speaker.add(
    voice,
    voice.files.map(({ name }) => new Uint8Array(readFileSync(path.join(voices, name)))),
  );
const ours = (id) => (text) => speaker.speak(text, id);
const other = new (await formants()).eSpeakNGWorker();
other.set_rate(175);
const theirs = (id) => (text) => {
  other.set_voice(id, '', 0, 0, 0);
  const pieces = [];
  other.synthesize(text, (pcm) => {
    if (pcm) pieces.push(...pcm);
    return false;
  });
  return { pcm: Int16Array.from(pieces), sampleRate: other.get_samplerate() };
};

function wordErrors(wanted, heard) {
  const [a, b] = [wanted, heard].map((text) => text.toLowerCase().match(/[a-z']+/g) ?? []);
  return { wrong: distance(a, b), of: a.length };
}

function heardAs({ pcm, sampleRate }, speed) {
  const [from, to] = [path.join(work, 'said.wav'), path.join(work, 'heard.wav')];
  const file = new wavefile.WaveFile();
  file.fromScratch(1, sampleRate, '16', pcm);
  writeFileSync(from, file.toBuffer());
  // The audio element's own way to be faster: the pitch stays.
  const words = ['-y', '-loglevel', 'error', '-i', from, '-af', `adelay=300,atempo=${speed},apad=pad_dur=0.3`];
  execFileSync(ffmpeg, [...words, '-ar', '16000', '-ac', '1', to]);
  return execFileSync(recogniser, ['-infile', to, '-logfn', '/dev/null'], { encoding: 'utf8' });
}

if (!isQuick)
  console.log(
    'Word error rate of pocketsphinx (US English model) on 40 Harvard sentences: a proxy for the ear, no more\n' +
      `${''.padEnd(30)}${SPEEDS.map((speed) => `${speed}x`.padStart(8)).join('')}`,
  );
for (const [name, speak] of isQuick
  ? []
  : [
      ['Dorvel, English, American', ours('en-us')],
      ['Dorvel, English, British', ours('en-gb')],
      ['formants, American', theirs('en-us')],
      ['formants, British', theirs('en')],
    ].filter(([name]) => name.includes(onlyRow))) {
  const rates = SPEEDS.map((speed) => {
    const sum = { wrong: 0, of: 0 };
    for (const text of HARVARD) {
      const { wrong, of } = wordErrors(text, heardAs(speak(text), speed));
      sum.wrong += wrong;
      sum.of += of;
    }
    return sum.wrong / sum.of;
  });
  console.log(`${name.padEnd(30)}${rates.map((rate) => `${(100 * rate).toFixed(0)} %`.padStart(8)).join('')}`);
}

function distance(a, b) {
  let row = Array.from({ length: b.length + 1 }, (_, n) => n);
  for (const [i, one] of a.entries()) {
    const next = [i + 1];
    for (const [j, two] of b.entries())
      next.push(Math.min(next[j] + 1, row[j + 1] + 1, row[j] + (one === two ? 0 : 1)));
    row = next;
  }
  return row.at(-1);
}
process.exit(0);
