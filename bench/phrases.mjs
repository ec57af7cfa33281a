// npm run bench:phrases: key phrases and echoes, with what an editor linked as the answers (FOLDOC), and with what was labelled by hand
// (the demo's texts).
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { toString } from 'nlcst-to-string';
import { retext } from 'retext';
import retextKeywords from 'retext-keywords';
import retextPos from 'retext-pos';
import { createEchoIndex, echoesOf } from '../core/src/echo/index.ts';
import { markdownTree } from '../core/src/formats/index.ts';
import {
  keyPhrases,
  plainWord,
  profileOf,
  shownIn,
  stemmerOf,
  stopWordsOf,
  termProfile,
} from '../core/src/terms/index.ts';
import { plainText, wordStarts } from '../core/src/text/index.ts';
import { readArticles } from '../demo/small-web/articles.ts';
import { readEntries } from './foldoc.mjs';

const entries = readEntries().map((entry) => ({ ...entry, text: entry.body.replace(/[{}]/g, '') }));

// Key phrases: the cross-references of an entry are the phrases that its editor chose. Weights were chosen on one half of
// the entries (by a hash of their ids); these figures are of the other half.
const tokens = (text) =>
  [...text.matchAll(/[\p{L}\p{M}\p{N}]+(?:['’][\p{L}\p{M}]+)*/gu)].map(([form]) => plainWord(form));
const [stem, stopWords] = [stemmerOf('en'), stopWordsOf('en')];
const stemmed = (word) => (/\p{L}/u.test(word) ? stem(word) : word);
const chosenBy = (entry) =>
  new Set(
    [...entry.body.matchAll(/\{([^}:]+)\}/g)].map(([, name]) => tokens(name).map(stemmed).join(' ')).filter(Boolean),
  );
const texts = entries.map((entry) => ({
  ...entry,
  plain: entry.text.replace(/\s+/g, ' '),
  gold: chosenBy(entry),
}));
const judged = texts.filter(
  ({ id, gold, plain }) => gold.size >= 3 && plain.length > 300 && ((id * 2654435761) >>> 0) % 2 === 1,
);
const having = new Map();
for (const { plain } of texts)
  for (const word of new Set(tokens(plain).map(stemmed))) having.set(word, (having.get(word) ?? 0) + 1);
const rarity = (word) => Math.log(1 + (texts.length - (having.get(word) ?? 0) + 0.5) / ((having.get(word) ?? 0) + 0.5));
const meanRarity = (key) => {
  const words = key.split(' ');
  return words.reduce((sum, word) => sum + rarity(word), 0) / words.length;
};

function phrasesJudged(name, rank) {
  const before = performance.now();
  let [precision, recall] = [0, 0];
  for (const entry of judged) {
    const hits = rank(entry)
      .slice(0, 5)
      .filter((key) => entry.gold.has(key)).length;
    precision += hits / 5;
    recall += hits / entry.gold.size;
  }
  const took = (performance.now() - before) / judged.length;
  const figure = (sum) => (sum / judged.length).toFixed(3);
  console.log(
    `${name.padEnd(28)} ${judged.length} entries    P@5 ${figure(precision)}   R@5 ${figure(recall)}   ${took.toFixed(2)} ms a text`,
  );
}

/** By TF-IDF over words, and over runs of up to `most` words without a stop word between. */
const byFrequency = (most) => (entry) => {
  const words = tokens(entry.plain);
  const counts = new Map();
  for (let from = 0; from < words.length; from++)
    for (let to = from; to < Math.min(words.length, from + most) && !stopWords.has(words[to]); to++) {
      const key = words
        .slice(from, to + 1)
        .map(stemmed)
        .join(' ');
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
  return [...counts]
    .map(([key, count]) => [key, count * meanRarity(key)])
    .sort((a, b) => b[1] - a[1])
    .map(([key]) => key);
};

console.log('\nKey phrases against those that the editor linked:');
phrasesJudged('Dorvel, the text alone', ({ plain, title }) =>
  keyPhrases(plain, { title, language: 'en' }).map(({ key }) => key),
);
phrasesJudged('TF-IDF, words', byFrequency(1));
phrasesJudged('TF-IDF, words and bigrams', byFrequency(2));
// The package that texts are taken apart with in the same ecosystem; its phrases first, then its words.
phrasesJudged('retext-keywords', ({ plain }) => {
  const file = { value: plain, data: {} };
  const processor = retext().use(retextPos).use(retextKeywords, { maximum: 20 });
  processor.runSync(processor.parse(plain), file);
  const { keyphrases = [], keywords = [] } = file.data;
  const key = (words) => tokens(words).map(stemmed).join(' ');
  const phrases = keyphrases.map((phrase) => ({ key: key(toString(phrase.matches[0].nodes)), score: phrase.score }));
  const words = keywords.map((word) => ({ key: key(toString(word.matches[0].node)), score: word.score }));
  return [...phrases, ...words].sort((a, b) => b.score - a.score).map((each) => each.key);
});

// Echoes: of what is marked in an entry, how much did its editor link? And how long it takes.
const echoes = createEchoIndex();
for (const { id, plain, title } of texts) echoes.put(String(id), termProfile(plain, title, 'en'));
let [marked, linked] = [0, 0];
for (const { id, plain, title, gold } of judged) {
  const about = { title, language: 'en', words: plain.split(' ').length };
  const own = String(id);
  const found = echoesOf(plain, about, echoes, {
    density: 'few',
    silenced: new Set(),
    not: (other) => other === own,
  });
  marked += found.length;
  linked += found.filter(({ key }) => gold.has(key)).length;
}
console.log(
  `Echoes at the density few: ${marked} in ${judged.length} entries, precision ${(linked / marked).toFixed(3)}`,
);
const long = texts
  .map(({ plain }) => plain)
  .join(' ')
  .split(' ')
  .slice(0, 3000)
  .join(' ');
const times = Array.from({ length: 30 }, () => {
  const before = performance.now();
  echoesOf(long, { title: null, language: 'en', words: 3000 }, echoes, {
    density: 'few',
    silenced: new Set(),
    not: () => false,
  });
  return performance.now() - before;
}).sort((a, b) => a - b);
console.log(
  `Echoes of 3,000 words over ${echoes.size} texts: p50 ${times[15].toFixed(0)} ms, p95 ${times[28].toFixed(0)} ms`,
);

// What is marked in the demo's texts, each with all others as the library, beside whether it is worth it to somebody who
// knows them (by hand, before and after the rules were chosen: the figure above is of texts that nobody here wrote).
const labels = JSON.parse(readFileSync(path.join(import.meta.dirname, 'echo-labels.json'), 'utf8'));
const articles = readArticles().map(({ slug, title, language, markdown }) => ({
  ...{ slug, title, language: language || 'en' },
  plain: plainText(markdownTree(markdown)),
}));
const library = createEchoIndex();
for (const { slug, plain, title, language } of articles) library.put(slug, profileOf(plain, title, language));
let [worthIt, judgedByHand, unlabelled] = [0, 0, 0];
for (const { slug, plain, title, language } of articles) {
  const words = wordStarts(plain.text, language).length;
  const about = { title, language, words, ...shownIn(plain) };
  for (const { form } of echoesOf(plain.text, about, library, {
    density: 'few',
    silenced: new Set(),
    not: (other) => other === slug,
  })) {
    const label = labels[slug]?.[form];
    if (label === undefined) unlabelled += 1;
    else judgedByHand += 1;
    if (label) worthIt += 1;
  }
}
const wanted = Object.values(labels)
  .flatMap((each) => Object.values(each))
  .filter(Boolean).length;
console.log(
  `Echoes of the demo: ${judgedByHand} labelled, precision ${(worthIt / judgedByHand).toFixed(3)}, of ${wanted} that are worth it ${worthIt} are marked; ${unlabelled} not labelled`,
);
