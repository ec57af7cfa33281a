// npm run bench:related: related items on the entries of a computing dictionary, with its own cross-references as the answers (FOLDOC).
import MiniSearch from 'minisearch';
import { createRelatedIndex } from '../core/src/relate/index.ts';
import { termProfile } from '../core/src/terms/index.ts';
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
  const took = [];
  let hits = 0;
  let reciprocal = 0;
  for (const query of asked) {
    const began = performance.now();
    const ranked = rank(query).slice(0, 50);
    took.push(performance.now() - began);
    hits += ranked.slice(0, 5).filter((id) => query.answers.has(id)).length / 5;
    const first = ranked.findIndex((id) => query.answers.has(id));
    if (first !== -1) reciprocal += 1 / (first + 1);
  }
  const spent = process.cpuUsage(before);
  console.log(
    `${name.padEnd(22)} ${String(asked.length).padStart(5)} queries    P@5 ${(hits / asked.length).toFixed(3)}   MRR ${(reciprocal / asked.length).toFixed(3)}   ${((spent.user + spent.system) / 1000 / asked.length).toFixed(2)} ms of CPU a query, p95 ${took.sort((a, b) => a - b)[Math.floor(0.95 * took.length)].toFixed(1)} ms`,
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
