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
import { openDemo } from './browser.mjs';

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

const work = path.join(import.meta.dirname, '.work/voice');
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

// Words that are written alike: which of two readings is heard, by which of two sentences with another spelling is nearer. The list
// is by the hand that wrote the rules, after them.
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
const cases = readFileSync(path.join(import.meta.dirname, 'heteronyms.txt'), 'utf8')
  .trim()
  .split('\n')
  .map((line) => /^(\S+) (\S+) (.*)$/.exec(line).slice(1));
const readings = new Map();
for (const [word, reading] of cases) readings.set(word, (readings.get(word) ?? new Set()).add(reading));
console.log('');
for (const [name, spoken] of [
  ['as the engine has it', (text) => text],
  ['with our rules', (text) => say(text, 'en').text],
])
  for (const id of ['en-gb', 'en-us']) {
    const wrong = cases.filter(([word, wanted, text]) => {
      const phones = (of) => speaker.pronounced(of, id).flatMap((each) => each.phones);
      const heard = phones(spoken(text));
      const nearest = [...readings.get(word)]
        .map((reading) => [distance(heard, phones(text.replace(new RegExp(`\\b${word}\\b`, 'i'), reading))), reading])
        .sort((a, b) => a[0] - b[0])[0][1];
      return nearest !== wanted;
    });
    console.log(`Heteronyms ${name}, ${id}: ${cases.length - wrong.length} of ${cases.length} as meant`);
    if (process.argv.includes('--wrong'))
      for (const [word, wanted, text] of wrong) console.log(`  ${word} ${wanted}: ${text}`);
  }

// The demo's English texts: how fast, and whether every word has its time.
const texts = path.join(root, 'demo/small-web/texts');
const prose = readdirSync(texts)
  .filter((name) => name.endsWith('.md'))
  .map((name) => readFileSync(path.join(texts, name), 'utf8'))
  .filter((text) => !/^language:/m.test(text))
  .map((text) =>
    text
      .split('---\n')
      .slice(2)
      .join('')
      .replace(/^#.*$|[*_`]|\]\([^)]*\)|[[|]/gm, ''),
  )
  .join('\n\n');
const spoken = sentences(prose, 'en').map(({ start, end }) => say(prose.slice(start, end), 'en').text);
const part = spoken.slice(0, 260);
let [placed, words, timed, seconds] = [0, 0, 0, 0];
const before = process.cpuUsage();
for (const text of part) {
  const sound = speaker.speak(text, 'en-gb');
  placed += sound.marks.length;
  words += wordsOf(text).length;
  timed += sound.isTimed ? 1 : 0;
  seconds += sound.pcm.length / sound.sampleRate;
}
const { user, system } = process.cpuUsage(before);
console.log(
  `\nMaking ${(seconds / 60).toFixed(1)} minutes of speech: ${((user + system) / 1e6 / seconds).toFixed(3)} s of CPU a second; ` +
    `${placed} of ${words} words placed, times read from the engine in ${timed} of ${part.length} sentences. ` +
    'Marks begin anew with each sentence: nothing adds up over an hour.',
);
const compressed = (file) => brotliCompressSync(readFileSync(file)).length;
const engine = path.dirname(new URL(import.meta.resolve('@echogarden/svoxpico-wasm')).pathname);
const kib = (bytes) => `${Math.round(bytes / 1024)} KiB`;
console.log(`Over the wire (brotli): engine ${kib(compressed(path.join(engine, 'svoxpico.wasm')))}`);
for (const { name, files } of SHIPPED_VOICES) {
  const bytes = files.reduce((sum, file) => sum + compressed(path.join(voices, file.name)), 0);
  const stored = files.reduce((sum, file) => sum + statSync(path.join(voices, file.name)).size, 0);
  console.log(`  ${name.padEnd(20)} ${kib(bytes)}, on the device ${kib(stored)}`);
}

const { page, end } = await openDemo(4970);
const minutes = Number(word('minutes') ?? 0);
// One text is not so long: what follows it in the Queue is heard as well.
if (minutes > 0) {
  await page.evaluate(() =>
    localStorage.setItem('dorvel.listening', JSON.stringify({ rate: 1, voices: {}, goOnWithQueue: true })),
  );
  await page.reload();
}
// What the server still makes of pictures would be measured with it.
for (let open = 1; open > 0; await new Promise((resolve) => setTimeout(resolve, 1000)))
  open = (await (await fetch('http://127.0.0.1:4970/readyz')).json()).jobsOpen;
await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
await page.waitForFunction(async () => (await (await caches.open('dorvel-voices')).keys()).length >= 2, null, {
  timeout: 60_000,
});
await page.getByRole('link', { name: /^Queue/ }).click();
await page
  .getByRole('link', { name: /\d+ min/ })
  .first()
  .click();
await page.getByRole('button', { name: 'Listen', exact: true }).waitFor();
await page.waitForTimeout(3000);
const throttle = await page.context().newCDPSession(page);
await throttle.send('Emulation.setCPUThrottlingRate', { rate: 4 });
const firstSound = () =>
  page.evaluate(
    () =>
      new Promise((resolve) => {
        const started = performance.now();
        const played = HTMLMediaElement.prototype.play;
        HTMLMediaElement.prototype.play = function play() {
          HTMLMediaElement.prototype.play = played;
          this.addEventListener('playing', () => resolve(performance.now() - started), { once: true });
          return played.call(this);
        };
        document.querySelector('[aria-label="Listen"]').click();
      }),
  );
const sounds = [];
for (let round = 0; round < 4; round++) {
  sounds.push(await firstSound());
  if (round < 3) {
    await page.getByRole('button', { name: 'Stop listening' }).click();
    await page.waitForTimeout(800);
  }
}
console.log(
  `\nFrom “Listen” to the first sound at 4x: cold ${sounds[0].toFixed(0)} ms, warm ${sounds
    .slice(1)
    .map((each) => each.toFixed(0))
    .join(', ')} ms`,
);
// From the end of one sentence's sound, its pause in it, to the next one's playing.
const gaps = await page.evaluate(
  () =>
    new Promise((resolve) => {
      const found = [];
      let endedAt = null;
      const played = HTMLMediaElement.prototype.play;
      const watched = new WeakSet();
      HTMLMediaElement.prototype.play = function play() {
        if (endedAt === null) endedAt = performance.now();
        if (!watched.has(this)) {
          watched.add(this);
          this.addEventListener('playing', () => {
            found.push(performance.now() - endedAt);
            endedAt = null;
            if (found.length === 8) resolve(found);
          });
        }
        return played.call(this);
      };
    }),
);
console.log(`Between sentences beyond the pause meant: ${gaps.map((gap) => gap.toFixed(0)).join(', ')} ms`);
// How far the place that words are marked by runs from the clock, as listening goes on: `--minutes=20` listens so long.
if (minutes > 0) {
  await throttle.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  const drifts = await page.evaluate(
    (ms) =>
      new Promise((resolve) => {
        const [begun, samples, playing] = [performance.now(), [], new Map()];
        const played = HTMLMediaElement.prototype.play;
        const watched = new WeakSet();
        HTMLMediaElement.prototype.play = function play() {
          if (!watched.has(this)) {
            watched.add(this);
            this.addEventListener('playing', () => playing.set(this, [performance.now(), this.currentTime]));
            this.addEventListener('ended', () => playing.delete(this));
          }
          return played.call(this);
        };
        const timer = setInterval(() => {
          const now = performance.now();
          for (const [element, [at, from]] of playing)
            if (!element.paused) samples.push([now - begun, now - at - (element.currentTime - from) * 1000]);
          if (now - begun < ms) return;
          clearInterval(timer);
          resolve(samples);
        }, 500);
      }),
    minutes * 60_000,
  );
  const inMinutes = (from, to) => {
    const some = drifts
      .flatMap(([at, drift]) => (at >= from * 60_000 && at < to * 60_000 ? [drift] : []))
      .sort((a, b) => a - b);
    return `${some[Math.floor(some.length / 2)]?.toFixed(0)} ms at the middle of ${some.length}, ${some.at(-1)?.toFixed(0)} at most`;
  };
  console.log(
    `The clock before the place in the sound: in the first two minutes ${inMinutes(0, 2)}; in the last two of ${minutes} ${inMinutes(minutes - 2, minutes)}`,
  );
}
await end();
process.exit(0);
