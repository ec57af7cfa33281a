// The entries of a computing dictionary (FOLDOC, GFDL; Debian's dict-foldoc, fetched for the run and kept outside the repository).
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';

const work = path.join(import.meta.dirname, '.work/foldoc');
const file = path.join(work, 'usr/share/dictd/foldoc.dict.dz');
if (!existsSync(file)) {
  mkdirSync(work, { recursive: true });
  execFileSync('apt-get', ['download', '-qq', 'dict-foldoc'], {
    cwd: work,
    stdio: ['ignore', 'inherit', 'ignore'],
  });
  execFileSync('sh', ['-c', 'dpkg-deb -x dict-foldoc_*.deb .'], { cwd: work });
}

/** Entries: a headword at the margin, its text indented; `{other headword}` is a cross-reference. */
export function readEntries() {
  const text = gunzipSync(readFileSync(file)).toString('utf8');
  const index = readFileSync(path.join(work, 'usr/share/dictd/foldoc.index'), 'utf8');
  const digits = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
  const number = (word) => [...word].reduce((sum, digit) => sum * 64 + digits.indexOf(digit), 0);
  const bytes = Buffer.from(text, 'utf8');
  const found = new Map();
  for (const line of index.split('\n')) {
    const [head, start, length] = line.split('\t');
    if (!length || head.startsWith('00-database')) continue;
    const at = number(start);
    const body = bytes.subarray(at, at + number(length)).toString('utf8');
    const title = body.split('\n')[0].trim();
    if (!found.has(at)) found.set(at, { id: at, title, body: body.split('\n').slice(1).join('\n') });
  }
  return [...found.values()];
}
