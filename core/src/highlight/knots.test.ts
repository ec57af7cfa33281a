import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Highlight } from '../model';
import { highlightFrom } from '../testing';
import { countWords } from '../text';
import { knotsOf } from './knots';
import { passageAt } from './passage';

const COPY = '019a0000-0000-7000-8000-000000000001';
const highlight = (text: string, start: number, length: number): Highlight =>
  highlightFrom({ id: COPY, itemId: COPY, passage: passageAt(text, start, start + length, COPY) });

it('stand near their place in texts of any script, worked out from one highlight alone', () => {
  const texts = path.join(__dirname, '../../../demo/small-web/texts');
  expect(existsSync(texts)).toBe(true);
  let checked = 0;
  for (const name of readdirSync(texts).filter((each) => each.endsWith('.md'))) {
    const text = readFileSync(path.join(texts, name), 'utf8').split('---\n').slice(2).join('').trim();
    if (text.length < 1500) continue;
    for (const part of [0.1, 0.5, 0.9]) {
      const start = Math.floor(part * text.length);
      const [knot] = knotsOf([highlight(text, start, 200)], countWords(text, null), null);
      // A sample of some forty words strays from the whole by a tenth or so.
      expect(Math.abs((knot ?? 0) - part)).toBeLessThan(0.12 + part * 0.15);
      checked += 1;
    }
  }
  expect(checked).toBeGreaterThan(60);
});

it('have none where no place is known, and none in an empty text', () => {
  const live = highlight('One two three.', 4, 3);
  live.choices.passage.value = { ...live.choices.passage.value, start: null, copyId: null };
  expect(knotsOf([live], 3, 'en')).toEqual([]);
  expect(knotsOf([highlight('One two three.', 4, 3)], 0, 'en')).toEqual([]);
  // Too short a sample: 4 of 3 words at six characters.
  expect(knotsOf([highlight('One two three.', 4, 3)], 3, 'en')).toEqual([4 / 18]);
});
