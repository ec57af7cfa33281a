import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { SHIPPED_VOICES } from '../listening';
import { say } from '../speech';
import { sentences } from '../text';
import { type Sound, type Speaker, VoiceError } from '.';
import { LONGEST } from './clauses';
import { fileOf, testSpeaker, VOICES_FOLDER } from './engine.test-data';
import { wordsOf } from './marks';

let speaker: Speaker;
beforeAll(async () => {
  speaker = await testSpeaker();
});

const secondsOf = ({ pcm, sampleRate }: Sound): number => pcm.length / sampleRate;

/** Marks in the order of the text and of time, inside the sound. */
function expectInOrder({ marks, ...sound }: Sound): void {
  const end = secondsOf({ marks, ...sound }) * 1000;
  marks.forEach(({ offset, atMs }, at) => {
    const before = marks[at - 1];
    expect(offset).toBeGreaterThan(before?.offset ?? -1);
    expect(atMs).toBeGreaterThanOrEqual(before?.atMs ?? 0);
    expect(atMs).toBeLessThanOrEqual(end);
  });
}

describe('the voices’ files', () => {
  it('are those that were taken over, with their notices', () => {
    for (const { name, bytes, sha256 } of SHIPPED_VOICES.flatMap(({ files }) => files)) {
      const data = fileOf(name);
      expect([name, data.length, createHash('sha256').update(data).digest('hex')]).toEqual([name, bytes, sha256]);
    }
    const notices = ['NOTICE', 'debian-copyright'].map((name) => readFileSync(path.join(VOICES_FOLDER, name), 'utf8'));
    for (const notice of notices) expect(notice).toMatch(/Apache/);
    expect(readdirSync(VOICES_FOLDER)).toHaveLength(2 * SHIPPED_VOICES.length + notices.length);
  });
});

describe('the times of words', () => {
  /** One sentence a voice, with numbers and signs, which the engine says in other words than are written. */
  const ODD: Readonly<Record<string, string>> = {
    'en-gb': 'In 1987 the M.I.T. paid £1,500, at 10:30, for “Harbour & Sons”; that’s café money.',
    'en-us': 'In 1987 the M.I.T. paid $1,500, at 10:30, for “Harbour & Sons”; that’s café money.',
    de: 'Am 3.4.1987 zahlte die GmbH 1.500 €, um 10:30 Uhr, für „Möwe & Söhne“; das war’s.',
    fr: 'En 1987, l’école paya 1 500 €, à 10 h 30, pour « Marée & fils »; c’est l’été qu’il aime.',
    es: 'En 1987 la S.A. pagó 1.500 €, a las 10:30, por «Marea & hijos»; ¿qué más da?',
    it: 'Nel 1987 l’amico pagò 1.500 €, alle 10:30, per «Marea & figli»; com’è andata?',
  };

  it('are read from the engine in every voice, also of what it says otherwise than it is written', () => {
    for (const { id } of SHIPPED_VOICES) {
      const text = ODD[id] ?? '';
      const sound = speaker.speak(text, id);
      // Its ten queues are found, all words and phones agree, and its frames come to as many samples as there are.
      expect([id, sound.isTimed]).toEqual([id, true]);
      expect(sound.marks.map(({ offset }) => offset)).toEqual(wordsOf(text).map(({ offset }) => offset));
      expectInOrder(sound);
    }
  });

  it('are there for every word of what stands at the head of every article of the demo', () => {
    const folder = path.resolve(__dirname, '../../../demo/small-web/texts');
    let placed = 0;
    for (const name of readdirSync(folder)) {
      const [, front = '', body = ''] = readFileSync(path.join(folder, name), 'utf8').split(/^---$/m);
      const language = /^language: (\w+)/m.exec(front)?.[1] ?? 'en';
      const voice = SHIPPED_VOICES.find((each) => each.language.startsWith(language));
      if (!voice) continue;
      const prose = body.replace(/^#.*$|[*_`]|\]\([^)]*\)|[[|]/gm, '').slice(0, 700);
      for (const { start, end } of sentences(prose, language).slice(0, 1)) {
        const { text } = say(prose.slice(start, end), language);
        const sound = speaker.speak(text, voice.id);
        if (sound.pcm.length === 0) continue;
        expect([text, sound.isTimed]).toEqual([text, true]);
        expect(sound.marks).toHaveLength(wordsOf(text).length);
        expectInOrder(sound);
        placed += sound.marks.length;
      }
    }
    expect(placed).toBeGreaterThan(600);
  });

  it('are when the word is heard: a word behind a comma begins where the silence ends', () => {
    // Sounds that can be held: a stop begins with a silence of its own.
    for (const text of ['Certainly, many came.', 'Tomorrow, never again.', 'Finally, sand moved.']) {
      const { pcm, marks } = speaker.speak(text, 'en-gb');
      const heardAt = marks[1]?.atMs ?? 0;
      // The longest silence between the first word and the last.
      let [longest, end, run] = [0, 0, 0];
      pcm.forEach((sample, at) => {
        run = Math.abs(sample) < 200 ? run + 1 : 0;
        if (run > longest && at < pcm.length * 0.8) [longest, end] = [run, at];
      });
      expect(longest / 16).toBeGreaterThan(120);
      expect(Math.abs(heardAt - end / 16)).toBeLessThan(40);
    }
  });
});

describe('no text stops the voice', () => {
  it('says 500 odd strings, or leaves them out', () => {
    // Repeatable, see the seed: strings of all that stands on pages, and of what should not.
    const odd = [
      '\u0000',
      '\uD800',
      '\uFFFD',
      '👩‍👩‍👧‍👦',
      '🇬🇧',
      '\u202e',
      '<',
      '>',
      '&amp;',
      '<volume level="9">',
      '</speed>',
      '<play file="/etc/passwd"/>',
      '\\',
      '%s',
      '${x}',
      'ﷺ',
      '汉字',
      'שלום',
      'ß',
      'İ',
      '1e400',
      '...',
      '—',
      '\t\n',
      '"',
      "'",
      'a',
      'The tide',
      'é̂̂̂̂',
      '٣',
      '½',
      '№',
      'ﬁ',
      'a'.repeat(30),
      '9'.repeat(12),
      '.'.repeat(40),
    ];
    let seed = 20_261_129;
    const next = (below: number) => {
      seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
      return Math.floor((seed / 2 ** 32) * below);
    };
    for (let round = 0; round < 500; round += 1) {
      const text = Array.from({ length: 1 + next(2) }, () => odd[next(odd.length)] ?? '').join(next(2) ? ' ' : '');
      const voice = SHIPPED_VOICES[next(SHIPPED_VOICES.length)]?.id ?? 'en-gb';
      const sound = speaker.speak(text, voice);
      expectInOrder(sound);
      expect(secondsOf(sound)).toBeLessThan(120);
    }
    expect(secondsOf(speaker.speak('And after it all it speaks.', 'en-gb'))).toBeGreaterThan(1);
  }, 120_000);

  it('goes on where the engine gives up', () => {
    const sound = speaker.speak(`The number is ${'7'.repeat(400)}, and no more.`, 'en-gb');
    expectInOrder(sound);
    expect(secondsOf(sound)).toBeGreaterThan(3);
  });

  it('says a sentence without end in parts, each at its words', () => {
    const clause = 'the boats that had waited for the wind all morning went out over the bar, ';
    const text = `${clause.repeat(Math.ceil((3 * LONGEST) / clause.length))}and nobody came back.`;
    const sound = speaker.speak(text, 'en-gb');
    expect(sound.isTimed).toBe(true);
    expect(sound.marks).toHaveLength(wordsOf(text).length);
    expectInOrder(sound);
  });

  it('never obeys what stands in a text', () => {
    const plain = secondsOf(speaker.speak('The boat and the quay are wet.', 'en-gb'));
    const marked = secondsOf(speaker.speak('The boat <silence msec="9000"/> and the quay are wet.', 'en-gb'));
    const quiet = speaker.speak('<volume level="0">The boat and the quay are wet.</volume>', 'en-gb');
    // It says the name of the tag, which no clean text has, and is silent for no time.
    expect(marked - plain).toBeLessThan(6);
    expect(Math.max(...quiet.pcm)).toBeGreaterThan(5000);
  });

  it('is silent for what has no sound', () => {
    for (const text of ['', ' ', '🌊', '汉字']) expect(speaker.speak(text, 'en-gb').pcm).toHaveLength(0);
  });

  it('says which voice is missing, and refuses files that are another’s', async () => {
    const [first, second] = SHIPPED_VOICES;
    if (!first || !second) throw new Error('no voices');
    const small = await testSpeaker([]);
    expect(() => small.speak('A word.', first.id)).toThrow(VoiceError);
    expect(() => small.add(first, [new Uint8Array(100), new Uint8Array(100)])).toThrow(VoiceError);
    small.add(second, [fileOf(second.files[0].name), fileOf(second.files[1].name)]);
    expect(secondsOf(small.speak('A word.', second.id))).toBeGreaterThan(0.3);
  });
});
