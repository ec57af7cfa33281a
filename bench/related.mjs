// npm run bench:related: related items on the entries of a computing dictionary, with its own cross-references as the answers (FOLDOC).
import MiniSearch from 'minisearch';
import { createEchoIndex, echoesOf } from '../core/src/echo/index.ts';
import { createRelatedIndex } from '../core/src/relate/index.ts';
import { keyPhrases, plainWord, stemmerOf, stopWordsOf, termProfile } from '../core/src/terms/index.ts';
import { readEntries } from './foldoc.mjs';

const entries = readEntries();
const byTitle = new Map(entries.map((entry) => [entry.title.toLowerCase(), entry.id]));
for (const entry of entries) {
  entry.answers = new Set(
    [...entry.body.matchAll(/\{([^}]+)\}/g)]
      .map(([, name]) => byTitle.get(name.replace(/\s+/g, ' ').trim().toLowerCase()))
      .filter((id) => id !== undefined && id !== entry.id),
  );
  // What links to it is related too: nearness has no direction.
  entry.text = entry.body.replace(/[{}]/g, '');
}
const queries = entries.filter(({ answers }) => answers.size > 0);
console.log(`${entries.length} entries, ${queries.length} with cross-references to others`);

function measure(name, rank, nth = 1) {
  const asked = queries.filter((_, at) => at % nth === 0);
  const before = process.cpuUsage();
  let hits = 0;
  let reciprocal = 0;
  for (const query of asked) {
    const ranked = rank(query).slice(0, 50);
    hits += ranked.slice(0, 5).filter((id) => query.answers.has(id)).length / 5;
    const first = ranked.findIndex((id) => query.answers.has(id));
    if (first !== -1) reciprocal += 1 / (first + 1);
  }
  const spent = process.cpuUsage(before);
  console.log(
    `${name.padEnd(22)} ${String(asked.length).padStart(5)} queries    P@5 ${(hits / asked.length).toFixed(3)}   MRR ${(reciprocal / asked.length).toFixed(3)}   ${((spent.user + spent.system) / 1000 / asked.length).toFixed(2)} ms a query`,
  );
}

/** Plain TF-IDF cosine over words as they stand, query = the 40 heaviest terms. */
function plainCosine() {
  const words = (text) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  const counts = entries.map(({ title, text }) => {
    const seen = new Map();
    for (const word of words(`${title} ${text}`)) seen.set(word, (seen.get(word) ?? 0) + 1);
    return seen;
  });
  const having = new Map();
  counts.forEach((seen) => [...seen.keys()].forEach((word) => having.set(word, (having.get(word) ?? 0) + 1)));
  const vectors = counts.map((seen) => {
    const weighted = [...seen].map(([word, n]) => [word, n * Math.log(entries.length / having.get(word))]);
    const norm = Math.hypot(...weighted.map(([, w]) => w)) || 1;
    return weighted.map(([word, w]) => [word, w / norm]);
  });
  const postings = new Map();
  vectors.forEach((vector, at) =>
    vector.forEach(([word, w]) => {
      if (!postings.has(word)) postings.set(word, []);
      postings.get(word).push([at, w]);
    }),
  );
  const place = new Map(entries.map(({ id }, at) => [id, at]));
  return ({ id }) => {
    const own = place.get(id);
    const heaviest = [...vectors[own]].sort((a, b) => b[1] - a[1]).slice(0, 40);
    const scores = new Map();
    for (const [word, w] of heaviest)
      for (const [at, theirs] of postings.get(word)) if (at !== own) scores.set(at, (scores.get(at) ?? 0) + w * theirs);
    return [...scores].sort((a, b) => b[1] - a[1]).map(([at]) => entries[at].id);
  };
}

function miniSearch() {
  const search = new MiniSearch({ fields: ['title', 'text'] });
  search.addAll(entries);
  return ({ id, title, text }) => {
    const words = [...new Set(`${title} ${text}`.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [])];
    return search
      .search(words.join(' '), { boost: { title: 3 } })
      .map((found) => found.id)
      .filter((found) => found !== id);
  };
}

function ours() {
  const index = createRelatedIndex();
  for (const { id, title, text } of entries) index.put(String(id), termProfile(text, title, 'en'));
  return ({ id }) => index.related(String(id), 50).map((found) => Number(found.id));
}

measure('Dorvel', ours(), 2);
measure('plain TF-IDF cosine', plainCosine(), 2);
// Queries this long are not what it is made for, and take it long: a part of them shows where it stands.
measure('minisearch', miniSearch(), 40);

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
