// npm run bench -- picture-kinds FOLDER [--grow]: how often the kind of a picture is told right.
//
// FOLDER holds Debian packages unpacked, each under its name (apt-get download NAME; dpkg -x NAME_*.deb FOLDER/NAME):
// gimp-help-en, gnome-user-docs, graphviz-doc, mate-backgrounds, openclipart-png, python3-skimage. Their pictures were labelled by
// hand, by looking at them (picture-kinds.tsv). To these come diagrams and pages drawn by code, of which few are in packages.
//
// What the questions are grown on and what they are judged on are kept apart: pictures from packages by the hash of their folder
// and name, what is drawn by its sort, and the demo's prints are only judged. --grow has scikit-learn grow the questions
// on the first part, and writes them into core/looking.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { kindOf, TEXT_BOUND } from '../core/src/looking/index.ts';
import { coveredBy } from '../core/src/picture/index.ts';
import { numbers } from '../demo/small-web/drawings.ts';
import { printOf } from '../demo/small-web/prints.ts';
import { measured, wordsIn } from '../server/src/capture/look-at.ts';
import { endRecognising } from '../server/src/capture/recognise.ts';

const sharp = createRequire(path.resolve('server/package.json'))('sharp');
const folder = process.argv[2];
if (!folder || !existsSync(folder)) {
  console.log('Give the folder with the unpacked packages; see bench/picture-kinds.mjs.');
  process.exit(1);
}
const FEATURES = [
  'flat',
  'soft',
  'colours',
  'paper',
  'straight',
  'long',
  'thin',
  'middle',
  'ground',
  'edges',
  'strong',
  'grey',
  'text',
  'words',
];

/** The demo's prints as one sees them. */
const OF_PRINTS = {
  'catalogue-page': 'page-of-text',
  'minutes-1': 'page-of-text',
  'minutes-2': 'page-of-text',
  'engine-section': 'diagram',
  'engine-wiring': 'diagram',
  'passengers-by-month': 'diagram',
  timetable: 'screenshot',
  oystercatcher: 'drawing',
  wheatear: 'drawing',
  'tern-in-line': 'line-drawing',
  'harbour-at-dusk': 'photograph',
  'eelgrass-from-the-kite': 'photograph',
  'slipway-1931': 'photograph',
};

const groupBy = (list, keyOf) =>
  list.reduce((groups, each) => ({ ...groups, [keyOf(each)]: [...(groups[keyOf(each)] ?? []), each] }), {});
const range = (n) => Array.from({ length: n }, (_, at) => at);
const svg = (width, height, inside, ground = '#ffffff') =>
  sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="${width}" height="${height}" fill="${ground}"/>${inside}</svg>`,
    ),
  );
const WORDS =
  'tide rope ferry quay meeting lamp wind slip harbour oak larch eelgrass crossing winter bread oven chart'.split(' ');
const COLOURS = ['#1f77b4', '#d62728', '#2ca02c', '#444444', '#ff7f0e', '#6b4c9a', '#222222', '#7f9fa6'];

const DRAWN = {
  bars: (r, pick) =>
    range(4 + Math.floor(r() * 9))
      .map((n) => {
        const high = 40 + r() * 420;
        return `<rect x="${110 + n * 62}" y="${540 - high}" width="44" height="${high}" fill="${pick(COLOURS)}"/><text x="${110 + n * 62}" y="570" font-size="16">${pick(WORDS)}</text>`;
      })
      .join('') +
    `<path d="M90 60V540H880" fill="none" stroke="#222" stroke-width="3"/><text x="300" y="40" font-size="30">${pick(WORDS)} and ${pick(WORDS)}</text>`,
  curves: (r, pick) =>
    range(1 + Math.floor(r() * 3))
      .map(
        () =>
          `<path d="M100 ${480 - r() * 300}${range(12)
            .map((n) => `L${170 + n * 60} ${500 - r() * 420}`)
            .join('')}" fill="none" stroke="${pick(COLOURS)}" stroke-width="${2 + r() * 4}"/>`,
      )
      .join('') +
    `<path d="M90 50V540H870" fill="none" stroke="#111" stroke-width="2"/>${range(6)
      .map(
        (n) =>
          `<text x="40" y="${530 - n * 90}" font-size="18">${n * 20}</text><path d="M90 ${525 - n * 90}H870" stroke="#ddd"/>`,
      )
      .join('')}`,
  shares: (r, pick) => {
    let from = 0;
    return (
      range(3 + Math.floor(r() * 3))
        .map(() => {
          const [a, b] = [from, (from += 1 + r() * 1.4)];
          return `<path d="M430 310L${430 + 220 * Math.sin(a)} ${310 - 220 * Math.cos(a)}A220 220 0 0 1 ${430 + 220 * Math.sin(b)} ${310 - 220 * Math.cos(b)}Z" fill="${pick(COLOURS)}"/>`;
        })
        .join('') +
      range(4)
        .map(
          (n) =>
            `<rect x="690" y="${160 + n * 50}" width="24" height="24" fill="${pick(COLOURS)}"/><text x="724" y="${180 + n * 50}" font-size="22">${pick(WORDS)}</text>`,
        )
        .join('')
    );
  },
  boxes: (r, pick) =>
    range(3 + Math.floor(r() * 5))
      .map((n) => {
        const [x, y] = [60 + (n % 3) * 290, 60 + Math.floor(n / 3) * 220];
        return `<rect x="${x}" y="${y}" width="190" height="110" rx="${r() > 0.5 ? 14 : 0}" fill="${pick(['#ffffff', '#e8eef4', '#fdf1d8'])}" stroke="#333" stroke-width="3"/><text x="${x + 30}" y="${y + 62}" font-size="24">${pick(WORDS)}</text><path d="M${x + 190} ${y + 55}h100" stroke="#333" stroke-width="3"/>`;
      })
      .join(''),
  trees: (r, pick) =>
    range(7)
      .map((n) => {
        const level = Math.floor(Math.log2(n + 1));
        const [x, y] = [((n + 1 - 2 ** level + 0.5) / 2 ** level) * 860, 70 + level * 190];
        const up =
          level === 0
            ? ''
            : `<path d="M${x} ${y}L${((Math.floor((n + 1) / 2) - 2 ** (level - 1) + 0.5) / 2 ** (level - 1)) * 860} ${y - 190}" stroke="#444" stroke-width="2"/>`;
        return `${up}<ellipse cx="${x}" cy="${y}" rx="80" ry="38" fill="${pick(['#ffffff', '#eef'])}" stroke="#444" stroke-width="2"/><text x="${x - 36}" y="${y + 8}" font-size="22">${pick(WORDS)}</text>`;
      })
      .join(''),
};
const FONTS = [
  'DejaVu Serif',
  'Liberation Sans',
  'DejaVu Sans',
  'Liberation Serif',
  'Liberation Mono',
  'DejaVu Sans Mono',
];

async function drawnDiagram(sort, seed) {
  const r = numbers(seed);
  const pick = (list) => list[Math.floor(r() * list.length)];
  return svg(
    900,
    620,
    `<g font-family="${pick(FONTS)}">${DRAWN[sort](r, pick)}</g>`,
    r() > 0.75 ? '#f4efe2' : '#ffffff',
  )
    .png()
    .toBuffer();
}

async function drawnPage(font, seed) {
  const r = numbers(seed);
  const pick = (list) => list[Math.floor(r() * list.length)];
  const size = 26 + r() * 14;
  const lines = range(14 + Math.floor(r() * 12)).map(() =>
    range(7)
      .map(() => pick(WORDS))
      .join(' '),
  );
  const inside = lines
    .map(
      (words, n) =>
        `<text x="70" y="${110 + n * size * 1.5}" font-size="${size}" font-family="${font}">${words}</text>`,
    )
    .join('');
  const page = svg(1000, 1250, inside, pick(['#ffffff', '#f3ead6', '#efefef']));
  if (r() < 0.5) return page.png().toBuffer();
  const turned = await page
    .rotate(r() * 6 - 3, { background: '#665' })
    .png()
    .toBuffer();
  return sharp(turned)
    .blur(0.6 + r())
    .modulate({ brightness: 0.75 + r() * 0.2 })
    .jpeg({ quality: 70 })
    .toBuffer();
}

const isFitted = (name) => parseInt(createHash('sha256').update(name).digest('hex').slice(0, 4), 16) % 2 === 0;

async function all() {
  const found = [];
  for (const row of readFileSync('bench/picture-kinds.tsv', 'utf8').trim().split('\n')) {
    const [kind, file] = row.split('\t');
    const at = path.join(folder, file);
    if (existsSync(at))
      found.push({ name: file, kind, set: isFitted(file) ? 'fitted' : 'judged', bytes: readFileSync(at) });
  }
  for (const [n, sort] of Object.keys(DRAWN).entries())
    for (const seed of range(10))
      found.push({
        name: `${sort} ${seed}`,
        kind: 'diagram',
        set: n < 3 ? 'fitted' : 'judged',
        bytes: await drawnDiagram(sort, 100 * n + seed),
      });
  for (const [n, font] of FONTS.entries())
    for (const seed of range(7))
      found.push({
        name: `${font} ${seed}`,
        kind: 'page-of-text',
        set: n < 3 ? 'fitted' : 'judged',
        bytes: await drawnPage(font, 1000 * n + seed),
      });
  for (const [name, kind] of Object.entries(OF_PRINTS))
    found.push({ name: `print ${name}`, kind, set: 'prints', bytes: await printOf(name).made });
  return found;
}

const kept = path.join(os.tmpdir(), 'dorvel-picture-kinds.json');
const known = existsSync(kept) ? JSON.parse(readFileSync(kept, 'utf8')) : {};
const pictures = [];
for (const { bytes, ...picture } of await all()) {
  const key = createHash('sha256').update(bytes).digest('hex');
  // As it would be kept: no longer than that, either way.
  const large = await sharp(bytes)
    .flatten({ background: '#ffffff' })
    .resize({ width: 2600, height: 2600, fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 88 })
    .toBuffer();
  known[key] ??= (await wordsIn(large, 'en')).words;
  pictures.push({
    ...picture,
    features: {
      ...(await measured(large, known[key])),
      ...(({ covered, words }) => ({ text: covered, words }))(coveredBy(known[key])),
    },
  });
}
writeFileSync(kept, JSON.stringify(known));
await endRecognising();

for (const set of ['fitted', 'judged', 'prints']) {
  const own = pictures.filter((each) => each.set === set);
  const kinds = [...new Set(own.map(({ kind }) => kind))].sort();
  const told = own.map((each) => ({ ...each, told: kindOf(each.features).kind }));
  const right = told.filter(({ kind, told: said }) => kind === said).length;
  console.log(`${set}: ${right} of ${own.length} told right, ${(right / own.length).toFixed(3)}`);
  for (const kind of kinds) {
    const mine = told.filter((each) => each.kind === kind);
    const others = Object.entries(
      groupBy(
        mine.filter((each) => each.told !== kind),
        ({ told: said }) => said,
      ),
    ).map(([said, list]) => `${list.length} as ${said}`);
    console.log(
      `  ${kind.padEnd(13)} ${mine.length - mine.filter((each) => each.told !== kind).length} of ${mine.length}  ${others.join(', ')}`,
    );
  }
  if (process.argv.includes('--wrong'))
    for (const { name, kind, told: said, features } of told)
      if (kind !== said) console.log('   ', name, kind, '→', said, JSON.stringify(features));
}
console.log(
  `of which library: none to set beside it; a guess of the most frequent kind is right ${(Math.max(...Object.values(groupBy(pictures, ({ kind }) => kind)).map((list) => list.length)) / pictures.length).toFixed(3)}`,
);

if (process.argv.includes('--grow')) {
  // What is full of words is told by few questions (core/looking/kind.ts); the forest is for the rest.
  const rest = pictures.filter(({ set, features }) => set === 'fitted' && features.text <= TEXT_BOUND);
  const file = path.join(os.tmpdir(), 'dorvel-picture-kinds.csv');
  writeFileSync(
    file,
    rest.map(({ kind, features }) => [kind, ...FEATURES.map((f) => features[f])].join(',')).join('\n'),
  );
  const program = `
import csv, json
from sklearn.ensemble import RandomForestClassifier
from sklearn.model_selection import StratifiedKFold, cross_val_score
rows = list(csv.reader(open(${JSON.stringify(file)})))
X = [[float(x) for x in row[1:]] for row in rows]; y = [row[0] for row in rows]
forest = RandomForestClassifier(60, max_depth=6, min_samples_leaf=2, class_weight='balanced', random_state=1)
folds = [cross_val_score(forest, X, y, cv=StratifiedKFold(5, shuffle=True, random_state=seed)).mean() for seed in range(5)]
forest.fit(X, y)
def written(tree):
    t = tree.tree_
    leaf = t.children_left < 0
    return {
        'feature': [-1 if leaf[n] else int(t.feature[n]) for n in range(t.node_count)],
        'upTo': [0 if leaf[n] else float('%.4g' % t.threshold[n]) for n in range(t.node_count)],
        'right': [0 if leaf[n] else int(t.children_right[n]) for n in range(t.node_count)],
        'share': [[round(100 * v / t.value[n][0].sum()) for v in t.value[n][0]] for n in range(t.node_count)],
    }
print(json.dumps({'folds': folds, 'kinds': list(forest.classes_), 'trees': [written(e) for e in forest.estimators_]}))
`;
  const { folds, ...grown } = JSON.parse(
    execFileSync('/usr/bin/python3', ['-c', program], { encoding: 'utf8', maxBuffer: 1e8 }),
  );
  console.log(
    `what has few words: ${(folds.reduce((sum, each) => sum + each, 0) / folds.length).toFixed(3)} by five-fold cross-validation of ${rest.length}, in five orders`,
  );
  const made = `npm run bench -- picture-kinds FOLDER --grow, ${new Date().toISOString().slice(0, 10)}, ${rest.length} pictures`;
  writeFileSync(
    'core/src/looking/kind-forest-made.ts',
    `/** The forest in use, as JSON; see kind-forest. Written by bench/picture-kinds.mjs, never by hand. */\nexport const MADE =\n  '${JSON.stringify({ made, features: FEATURES, ...grown })}';\n`,
  );
}
