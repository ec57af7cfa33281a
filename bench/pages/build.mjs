// node build.mjs OUT_DIR: OUT_DIR/cache and the gold beside this file → OUT_DIR/cases. Called by rebuild.sh.
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import zlib from 'node:zlib';
import { decode, parse, textOf } from './dom.mjs';

const here = path.dirname(fileURLToPath(import.meta.url));
const out = process.argv[2];
const cache = path.join(out, 'cache');
const notes = [];
const squash = (text) => (text ?? '').replace(/\s+/g, ' ').trim();
const json = (name) => JSON.parse(fs.readFileSync(path.join(here, name), 'utf8'));
const read = (file) => {
  const bytes = fs.readFileSync(file);
  return decode(file.endsWith('.gz') ? zlib.gunzipSync(bytes) : bytes);
};
const innermostLast = (elements) =>
  elements.filter((each) => !elements.some((other) => other !== each && other.contains(each)));

/** Gold of a page: its roots in document order, without what is removed; what is optional is neither rewarded nor punished. */
function goldOf(document, rule, takeAllRoots) {
  const all = (selector) => {
    try {
      return [...document.querySelectorAll(selector)];
    } catch {
      notes.push(`bad selector ${selector}`);
      return [];
    }
  };
  const also = (rule.also ?? []).flatMap((selector) => all(selector).map(textOf));
  if (rule.state) return goldOfState(document, rule.state);
  let roots = [];
  for (const selector of rule.root) {
    const found = all(selector);
    roots.push(...found);
    if (found.length > 0 && !takeAllRoots) break;
  }
  roots = innermostLast([...new Set(roots)]).sort((a, b) => (a.compareDocumentPosition(b) & 4 ? -1 : 1));
  const inRoots = (element) => roots.some((root) => root !== element && root.contains(element));
  for (const selector of rule.remove ?? []) for (const element of all(selector)) if (inRoots(element)) element.remove();
  const optional = [];
  for (const selector of rule.optional ?? [])
    for (const element of all(selector))
      if (element.isConnected && inRoots(element)) {
        optional.push(textOf(element));
        element.remove();
      }
  roots = roots.filter((root) => root.isConnected);
  return {
    gold: roots.map(textOf).join('\n').trim(),
    html: roots.map((root) => root.outerHTML).join('\n'),
    optional: [...optional, ...also],
  };
}

/** Gold of a page whose text stands only in the state that its scripts begin with. */
function goldOfState(document, state) {
  const plain = (html) => textOf(parse(`<!doctype html><body>${html}`).body).replace(/\n/g, ' ');
  const { props } = JSON.parse(document.querySelector(state.script).textContent);
  const gold = [];
  (function walk(value, key, above) {
    if (typeof value === 'string') {
      const text = state.keys.includes(key) || state.keys.includes(`${above}.${key}`) ? plain(value) : '';
      if (text && !gold.includes(text)) gold.push(text);
    } else if (Array.isArray(value)) value.forEach((each) => walk(each, key, above));
    else if (value && typeof value === 'object')
      for (const [name, each] of Object.entries(value)) walk(each, name, key || above);
  })(props, '', '');
  return { gold: gold.join('\n'), html: '', optional: [plain(JSON.stringify(props).replace(/[{}[\]"\\]/g, ' '))] };
}

function put(set, id, page, { gold, html, optional }, meta) {
  if (gold.length < 80) {
    notes.push(`no gold: ${set}/${id}`);
    return;
  }
  const folder = path.join(out, 'cases', set, id);
  fs.mkdirSync(folder, { recursive: true });
  const write = (name, text) => fs.writeFileSync(path.join(folder, name), text);
  write('page.html', page);
  write('gold.txt', `${gold}\n`);
  write('gold.html', html);
  write('gold-optional.txt', `${optional.join('\n').trim()}\n`);
  write(
    'meta.json',
    JSON.stringify(
      Object.fromEntries(Object.entries(meta).filter(([, value]) => value != null && value !== '')),
      null,
      1,
    ),
  );
}

fs.rmSync(path.join(out, 'cases'), { recursive: true, force: true });
for (const rule of json('modern.json').pages) {
  const file = path.join(cache, rule.file);
  if (!fs.existsSync(file)) {
    notes.push(`missing: ${rule.id}`);
    continue;
  }
  const page = read(file).replace(/^[\s\S]{0,8192}/, (head) =>
    head
      .replace(/(<meta[^>]+charset=["']?\s*)(?!utf-?8)[\w-]+/i, '$1utf-8')
      .replace(/(<\?xml[^>]+encoding=["'])(?!utf-?8)[\w-]+/i, '$1utf-8'),
  );
  const found = goldOf(parse(page, rule.url), rule, true);
  const optional = [
    ...found.optional,
    rule.title ?? '',
    squash(parse(page).title),
    rule.byline ?? '',
    rule.published ?? '',
  ];
  put(
    'modern',
    rule.id,
    page,
    { ...found, optional },
    {
      url: rule.url,
      kind: rule.kind,
      lang: rule.lang,
      template: rule.template,
      title: rule.titleUnsure ? undefined : rule.title,
      byline: rule.byline,
      published: rule.dateUnsure ? undefined : rule.published,
      site: rule.site,
    },
  );
}
const news = json('news.json');
const taken = {};
const folder = path.join(cache, 'npm/htmlparser-benchmark/files');
for (const name of fs
  .readdirSync(folder)
  .filter((each) => each.endsWith('.html'))
  .sort()) {
  if (news.not.some((each) => name.startsWith(each))) continue;
  const page = read(path.join(folder, name));
  const stated = /<link[^>]*rel=["']?canonical["']?[^>]*>/i.exec(page) ?? /<meta[^>]*og:url[^>]*>/i.exec(page);
  const address =
    stated && /(?:href|content)=["']?([^"'> ]+)/i.exec(stated[0].replace(/(rel|property)=["'][^"']*["']/i, ''));
  const url = address && /^http/.test(address[1]) ? address[1] : null;
  const host = url ? new URL(url).hostname.replace(/^www\./, '') : '';
  const pageTitle = (/<title[^>]*>([\s\S]*?)<\/title>/i.exec(page) ?? [])[1] ?? '';
  const rule = news.templates.find((each) => (each.match ? pageTitle.includes(each.match) : host === each.host));
  if (!rule || (taken[rule.host] ?? 0) >= news.cap) continue;
  const found = goldOf(parse(page, url), rule, false);
  if (found.gold.length < 500) continue;
  taken[rule.host] = (taken[rule.host] ?? 0) + 1;
  const document = parse(page, url);
  const first = (selectors) =>
    (selectors ?? [])
      .map((each) => {
        try {
          return squash(document.querySelector(each)?.textContent);
        } catch {
          return '';
        }
      })
      .find(Boolean);
  const byline = first(rule.byline)
    ?.replace(/^\s*(posted\s+)?by[:\s]+/i, '')
    .replace(/\s+-\s+\d{4}-.*$/, '')
    .replace(/\s*\|.*$/, '');
  const plain = (text) =>
    text
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  const titles = plain(`${document.title} ${document.querySelector('meta[property="og:title"]')?.content ?? ''}`);
  const title = [...document.querySelectorAll('h1,h2')]
    .map((each) => squash(each.textContent))
    .filter((each) => each.length > 12 && titles.includes(plain(each)))
    .sort((a, b) => b.length - a.length)[0];
  const published = first(rule.published);
  put(
    'news',
    `${rule.host.split('.').slice(-3).join('.')}-${name.slice(0, 8)}`,
    page,
    { ...found, optional: [...found.optional, title ?? '', byline ?? '', published ?? '', pageTitle] },
    {
      url: url ?? `http://${rule.host}/`,
      kind: 'news',
      lang: 'en',
      template: rule.host,
      title,
      byline: byline && byline.length < 90 ? byline : undefined,
      published: published && /\d{4}/.test(published) ? published : undefined,
      site: rule.site,
    },
  );
}
for (const set of ['modern', 'news']) console.log(set, fs.readdirSync(path.join(out, 'cases', set)).length, 'pages');
for (const note of notes) console.log(note);
