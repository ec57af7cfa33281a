import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { PLAINLY_THE_SAME } from '../nearness';
import { sentences } from '../text';
import { resemblance, sketchOf } from './sketch';
import { plainWord, wordsIn } from './words';

const folder = path.join(__dirname, '../../../demo/small-web/texts');
/** The demo's articles in English, by their sentences. */
const TEXTS = readdirSync(folder)
  .map((name) => readFileSync(path.join(folder, name), 'utf8'))
  .filter((text) => !/^language:/m.test(text))
  .map((text) => {
    const body = text.slice(text.indexOf('\n---\n') + 5);
    return sentences(body, 'en').map(({ start, end }) => body.slice(start, end));
  })
  .filter((said) => said.length >= 15);
const sketch = (said: readonly string[]) => sketchOf(said.join(' '), 'en');
const shuffled = <Value>(values: readonly Value[], random: () => number) =>
  values
    .map((value) => ({ value, at: random() }))
    .sort((a, b) => a.at - b.at)
    .map(({ value }) => value);

describe('the sketch of a text', () => {
  it('estimates the Jaccard index of the shingles, which can be counted here', () => {
    const of = (said: readonly string[]) => {
      const words = [...wordsIn(said.join(' '), 'en')].map(({ form }) => plainWord(form));
      return new Set(words.slice(2).map((_, at) => words.slice(at, at + 3).join(' ')));
    };
    const errors = TEXTS.map((said, at) => {
      const other = [
        ...said.slice(0, Math.ceil(said.length * 0.6)),
        ...(TEXTS[(at + 1) % TEXTS.length] ?? []).slice(0, 8),
      ];
      const [a, b] = [of(said), of(other)];
      const shared = [...a].filter((shingle) => b.has(shingle)).length;
      return Math.abs(resemblance(sketch(said), sketch(other)) - shared / (a.size + b.size - shared));
    });
    // A sample of 128 strays by 0.044 at one half (binomial), four times that in hardly any.
    expect(errors.reduce((sum, error) => sum + error, 0) / errors.length).toBeLessThan(0.05);
    expect(Math.max(...errors)).toBeLessThan(0.18);
  });

  it('tells the same text under any other address, and nothing from an empty one', () => {
    expect(resemblance(sketch(TEXTS[0]!), sketch(TEXTS[0]!))).toBe(1);
    expect(resemblance([], [])).toBe(0);
    expect(resemblance(sketch(TEXTS[0]!), [])).toBe(0);
    expect(sketchOf('Two words', 'en')).toEqual([]);
  });

  it('tells at least nineteen of twenty texts that share seven tenths of their sentences, cut, shortened and mixed', () => {
    let told = 0;
    let asked = 0;
    fc.assert(
      fc.property(
        fc.nat(TEXTS.length - 1),
        fc.nat(TEXTS.length - 1),
        fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
        (at, beside, draws) => {
          const random = () => draws.next().value ?? 0;
          const [said, other] = [TEXTS[at]!, TEXTS[beside]!];
          if (at === beside) return;
          const shared = shuffled([...said.keys()], random)
            .slice(0, Math.ceil(said.length * 0.7))
            .sort((a, b) => a - b)
            .map((n) => said[n] ?? '');
          // Words here and there are others, as an editor changes them.
          const edited = shared.map((sentence) =>
            random() < 0.3 ? sentence.replace(/\b(the|a|and)\b/, 'this') : sentence,
          );
          const retold = [...edited, ...other.slice(0, Math.floor(said.length * 0.3))];
          asked += 1;
          if (resemblance(sketch(said), sketch(retold)) >= PLAINLY_THE_SAME) told += 1;
        },
      ),
      { numRuns: 120, seed: 7 },
    );
    expect(asked).toBeGreaterThan(100);
    expect(told / asked).toBeGreaterThanOrEqual(0.95);
  });

  it('takes no two articles of the demo for one', () => {
    const all = TEXTS.map(sketch);
    const pairs = all.flatMap((one, at) => all.slice(at + 1).map((other) => resemblance(one, other)));
    expect(pairs.filter((each) => each >= PLAINLY_THE_SAME)).toEqual([]);
    expect(pairs.length).toBeGreaterThan(300);
  });
});
