import { readFileSync, writeFileSync, existsSync } from 'node:fs';
import { developmentPages, scoreText } from './development-pages.mjs';
import { extractArticle } from '../core/src/extract/index.ts';
const out = {};
const sums = {};
for (const page of developmentPages()) {
  const a = extractArticle(page.html, page.url);
  const { f1 } = scoreText(a.text, page);
  out[page.id] = { text: a.text, f1, title: a.title, authors: a.authors, date: a.publishedAt, site: a.siteName, tree: JSON.stringify(a.tree) };
  (sums[page.set] ??= []).push(f1);
}
const mean = (x) => x.reduce((s, v) => s + v, 0) / x.length;
for (const [set, f] of Object.entries(sums)) { const sorted = f.toSorted((a, b) => a - b); console.log(set, f.length, mean(f).toFixed(4), 'worst tenth', mean(sorted.slice(0, Math.ceil(f.length / 10))).toFixed(4)); }
const name = process.argv[2];
if (name === 'base') writeFileSync('/tmp/base17.json', JSON.stringify(out));
else { const base = JSON.parse(readFileSync('/tmp/base17.json', 'utf8'));
  for (const [id, now] of Object.entries(out)) { const was = base[id]; if (was.text !== now.text || was.tree !== now.tree || was.title !== now.title || String(was.authors) !== String(now.authors) || was.date !== now.date || was.site !== now.site) { const A = new Set(was.text.split('\n')), B = new Set(now.text.split('\n')); console.log(id, was.f1.toFixed(4), '→', now.f1.toFixed(4), now.f1 < was.f1 - 1e-6 ? 'WORSE' : now.f1 > was.f1 + 1e-6 ? 'BETTER' : 'same', was.date !== now.date ? `DATE ${was.date} → ${now.date}` : "", was.site !== now.site ? `SITE ${was.site} → ${now.site}` : "", was.title !== now.title ? `TITLE ${was.title} → ${now.title}` : '', String(was.authors) !== String(now.authors) ? `AUTHORS ${was.authors} → ${now.authors}` : ''); for (const l of A) if (!B.has(l)) console.log('   -', l.slice(0, 140)); for (const l of B) if (!A.has(l)) console.log('   +', l.slice(0, 140)); } } }
