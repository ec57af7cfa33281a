// node scripts/bench.mjs facts PAGES: what pages that nobody here wrote state in schema.org's terms, as Dorvel reads it and as reference
// readers do: JSON.parse for JSON-LD that is whole, microdata-node for microdata. PAGES is a folder of folders with a page.html each.
// A value agrees when both give the same number, or the same words.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { extractArticle } from '@dorvel/core/extract';
import { valueInWords } from '@dorvel/core/wording';
import { parseHTML } from 'linkedom';
import { toJson } from 'microdata-node';

const folder = process.argv[2] ?? process.env.PAGES;
if (!folder) throw new Error('which pages? node scripts/bench.mjs facts FOLDER');
const TYPES = {
  product: /(?:^|\/)(?:Product|ProductGroup)$/,
  recipe: /(?:^|\/)Recipe$/,
  event: /(?:^|\/)\w*Event$/,
  book: /(?:^|\/)Book$/,
  video: /(?:^|\/)VideoObject$/,
};
const KEYS = [
  ...[
    'offers.price',
    'offers.availability',
    'aggregateRating.ratingValue',
    'aggregateRating.ratingCount',
    'aggregateRating.reviewCount',
  ],
  ...[
    'brand',
    'sku',
    'prepTime',
    'cookTime',
    'totalTime',
    'recipeYield',
    'recipeIngredient',
    'startDate',
    'isbn',
    'duration',
  ],
];

const pages = [folder, ...readdirSync(folder).map((name) => path.join(folder, name))]
  .flatMap((at) => {
    try {
      return readdirSync(at).map((name) => path.join(at, name, 'page.html'));
    } catch {
      return [];
    }
  })
  .filter((file) => {
    try {
      return readFileSync(file).length > 0;
    } catch {
      return false;
    }
  });

/** Things of the types that are read, by the reference readers. */
function reference(html) {
  const things = [];
  const { document } = parseHTML(html);
  const collect = (value) => {
    if (Array.isArray(value)) value.forEach(collect);
    else if (value && typeof value === 'object') {
      if (value['@type']) things.push({ types: [value['@type']].flat(), properties: value });
      for (const key of ['@graph', 'mainEntity', 'itemListElement', 'item']) collect(value[key]);
    }
  };
  for (const script of document.querySelectorAll('script[type="application/ld+json"]')) {
    try {
      collect(JSON.parse(script.textContent));
    } catch {
      // The reference takes only what is whole JSON.
    }
  }
  const flat = ({ type = [], properties = {} }) => ({
    '@type': type,
    ...Object.fromEntries(
      Object.entries(properties).map(([name, values]) => [
        name,
        values.map((value) => (value && typeof value === 'object' ? flat(value) : value)),
      ]),
    ),
  });
  const every = (item) => [
    item,
    ...Object.values(item.properties ?? {})
      .flat()
      .filter((value) => value && typeof value === 'object')
      .flatMap(every),
  ];
  for (const item of toJson(html).items.flatMap(every)) things.push({ types: item.type ?? [], properties: flat(item) });
  return things;
}

const first = (value) => (Array.isArray(value) ? value[0] : value);
function stated(properties, key) {
  const [name, part] = key.split('.');
  const value = properties[name];
  if (part === undefined) return value;
  return [value]
    .flat()
    .map((each) => (each && typeof each === 'object' ? each[part] : undefined))
    .find((each) => each !== undefined);
}
const words = (value) =>
  String(first(value) && typeof first(value) === 'object' ? (first(value).name ?? '') : (first(value) ?? ''))
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu)
    ?.join(' ') ?? '';
const seconds = (iso) => {
  const found = /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/.exec(String(first(iso)).trim());
  return found ? found.slice(1).reduce((sum, each, at) => sum + Number(each ?? 0) * [86400, 3600, 60, 1][at], 0) : null;
};
function agrees(fact, value) {
  if (fact.value.type === 'duration') return fact.value.seconds === seconds(value);
  if (fact.value.type === 'money') return fact.value.amount === Number(String(first(value)).replace(/[^\d.]/g, ''));
  if (fact.value.type === 'number') return fact.value.number === Number(String(first(value)).replace(/[^\d.]/g, ''));
  if (fact.value.type === 'date') return fact.value.date.slice(0, 10) === String(first(value)).slice(0, 10);
  const [got, wanted] = [words(fact.value.text), words(value)];
  return got === wanted || got.startsWith(wanted) || wanted.endsWith(got);
}

const sums = Object.fromEntries(KEYS.map((key) => [key, { stated: 0, read: 0, same: 0, other: [] }]));
let [withThings, more, ours, theirs] = [0, 0, 0, 0];
const fromText = [];
for (const file of pages) {
  const html = readFileSync(file, 'utf8');
  let before = performance.now();
  const { facts } = extractArticle(html, 'https://pages.example/a');
  ours += performance.now() - before;
  before = performance.now();
  const things = reference(html).filter(({ types }) =>
    Object.values(TYPES).some((type) => types.some((each) => type.test(String(each)))),
  );
  theirs += performance.now() - before;
  const inText = facts.filter(({ source }) => source === 'text');
  if (inText.length > 0) fromText.push([path.basename(path.dirname(file)), inText]);
  if (things.length > 0) withThings++;
  else if (facts.some(({ source }) => source !== 'text')) more++;
  for (const key of KEYS) {
    const values = things.map(({ properties }) => stated(properties, key)).filter((value) => words(value) !== '');
    if (values.length === 0) continue;
    sums[key].stated++;
    const read = facts.filter((fact) => fact.key === key);
    if (read.length > 0) sums[key].read++;
    if (read.some((fact) => values.some((value) => agrees(fact, value)))) sums[key].same++;
    else
      sums[key].other.push(
        `${path.basename(path.dirname(file))}: ${read.map((fact) => valueInWords(fact.value)).join(' | ') || 'nothing'} for ${String(words(values[0])).slice(0, 60)}`,
      );
  }
}
console.log(
  `${pages.length} pages, ${withThings} with things that both read; on ${more} others Dorvel reads facts and the reference none`,
);
console.log('fact                          stated   read  the same');
for (const [key, { stated: of, read, same }] of Object.entries(sums))
  if (of > 0)
    console.log(`${key.padEnd(30)}${String(of).padStart(6)}${String(read).padStart(7)}${String(same).padStart(10)}`);
const total = Object.values(sums).reduce(
  (sum, each) => [sum[0] + each.stated, sum[1] + each.read, sum[2] + each.same],
  [0, 0, 0],
);
console.log(`all: ${total.join(' / ')}; whole extraction ${Math.round(ours)} ms, reference ${Math.round(theirs)} ms`);
for (const { other } of Object.values(sums)) for (const each of other) console.log(`  differs: ${each}`);
console.log(`\nRead from labels with values in the text, on ${fromText.length} pages (to be judged by eye):`);
for (const [name, facts] of fromText)
  console.log(
    `  ${name}: ${facts
      .slice(0, 6)
      .map(({ key, value }) => `${key.slice(5)} = ${valueInWords(value)}`)
      .join('; ')
      .slice(0, 300)}`,
  );
