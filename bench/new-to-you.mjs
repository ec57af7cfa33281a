// npm run bench:new-to-you: texts mixed of sentences that were read before, whole, reworded or altered, and of new ones (FOLDOC, WordNet).
import { knownIn } from '../core/src/new-to-you/index.ts';
import { stopWordsOf } from '../core/src/terms/index.ts';
import { plainText, sentences } from '../core/src/text/index.ts';
import { readEntries } from './foldoc.mjs';
import { altered, randomFrom, reworded } from './reword.mjs';

const TEXTS = 200;
const clean = (body) => body.replace(/[{}]/g, '').replace(/\s+/g, ' ').trim();
const split = (text) =>
  sentences(text, 'en')
    .map(({ start, end }) => text.slice(start, end))
    .filter((sentence) => sentence.split(' ').length >= 6 && sentence.length < 400);
const entries = readEntries();
const byTitle = new Map(entries.map((entry) => [entry.title.toLowerCase(), entry]));
const long = entries
  .map((entry) => ({ ...entry, said: split(clean(entry.body)) }))
  .filter(({ said }) => said.length >= 14);
const asPlain = (said) =>
  plainText({
    type: 'root',
    children: said.map((value) => ({
      type: 'element',
      tagName: 'p',
      properties: {},
      children: [{ type: 'text', value }],
    })),
  });

function run(name, texts, seed) {
  const random = randomFrom(seed);
  const seen = {};
  let spent = 0;
  let longest = 0;
  for (const { body, said } of texts) {
    const shuffled = [...said].sort(() => random() - 0.5);
    const passedCount = Math.floor(shuffled.length * 0.6);
    const passed = shuffled.slice(0, passedCount);
    const names = [...new Set(clean(body).match(/ [A-Z][a-z]{2,}/g) ?? [])]
      .map((each) => each.trim())
      .filter((each) => !stopWordsOf('en').has(each.toLowerCase()));
    const mixed = [
      ...passed.map((sentence) => {
        const draw = random();
        if (draw < 0.35) return { kind: 'whole', text: sentence };
        if (draw < 0.7) return { kind: 'reworded', text: reworded(sentence, random) };
        const wrong = altered(sentence, names, random);
        return wrong ? { kind: wrong.how, text: wrong.text } : { kind: 'whole', text: sentence };
      }),
      ...shuffled.slice(passedCount).map((text) => ({ kind: 'new', text })),
    ].sort(() => random() - 0.5);
    // What the entry points to was read too: near in subject, and saying something else.
    const near = [...body.matchAll(/\{([^}]+)\}/g)]
      .map(([, title]) => byTitle.get(title.replace(/\s+/g, ' ').trim().toLowerCase()))
      .filter(Boolean)
      .slice(0, 8)
      .map((entry) => ({ id: entry.title, plain: asPlain(split(clean(entry.body))), language: 'en', until: Infinity }));
    const open = asPlain(mixed.map(({ text }) => text));
    const texts = [{ id: 'passed', plain: asPlain(passed), language: 'en', until: Infinity }, ...near];
    const before = performance.now();
    const known = new Set(knownIn(open, 'en', texts).map(({ start }) => start));
    const took = performance.now() - before;
    spent += took;
    longest = Math.max(longest, took);
    mixed.forEach(({ kind, text }, at) => {
      const { start, end } = open.blocks[at];
      // A sentence that its rewording cut in two counts when either part is known.
      const called = [...known].some((offset) => offset >= start && offset < end);
      seen[kind] ??= { all: 0, called: 0, examples: [] };
      seen[kind].all += 1;
      if (called) seen[kind].called += 1;
      if (called && !['whole', 'reworded'].includes(kind) && seen[kind].examples.length < 6)
        seen[kind].examples.push(text);
    });
  }
  const called = Object.values(seen).reduce((sum, each) => sum + each.called, 0);
  const right = seen.whole.called + seen.reworded.called;
  console.log(
    `\n${name}: ${texts.length} texts, ${Object.values(seen).reduce((sum, each) => sum + each.all, 0)} sentences`,
  );
  console.log(`of what is called known, known   ${(right / called).toFixed(3)}`);
  for (const [kind, { all, called: of }] of Object.entries(seen))
    console.log(
      `called known of ${kind.padEnd(10)} ${String(of).padStart(5)} of ${String(all).padStart(5)}   ${(of / all).toFixed(3)}`,
    );
  console.log(`${(spent / texts.length).toFixed(1)} ms a text, at most ${longest.toFixed(0)}`);
  if (process.env.EXAMPLES)
    for (const [kind, { examples }] of Object.entries(seen)) for (const each of examples) console.log(kind, '|', each);
}

console.log(`${long.length} entries of fourteen sentences or more`);
// Every second one was looked at while the method was made; what is said of it is the other half.
run('looked at', long.filter((_, at) => at % 2 === 0).slice(0, TEXTS), 1);
run('kept aside', long.filter((_, at) => at % 2 === 1).slice(0, TEXTS), 2);
