// Writes core/src/emoji/names.json: what emoji are called, by the Unicode CLDR (short names, "tts"). To be run when a new version of it is
// to be taken over; the package is 56 MB, so that it is fetched for the run only.
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const VERSION = '48.2.0';
const LANGUAGES = ['en', 'de', 'fr', 'es', 'it'];

const work = path.resolve(import.meta.dirname, '../../bench/.work/cldr');
mkdirSync(work, { recursive: true });
writeFileSync(path.join(work, 'package.json'), '{"private":true}');
execFileSync('npm', ['install', '--no-audit', '--no-fund', `cldr-annotations-full@${VERSION}`], { cwd: work });
const read = (language) =>
  JSON.parse(
    readFileSync(
      path.join(work, `node_modules/cldr-annotations-full/annotations/${language}/annotations.json`),
      'utf8',
    ),
  ).annotations.annotations;
const emoji = Object.keys(read('en')).filter((each) => /\p{Extended_Pictographic}/u.test(each));
const names = Object.fromEntries(
  LANGUAGES.map((language) => {
    const all = read(language);
    return [language, emoji.map((each) => all[each]?.tts?.[0] ?? '')];
  }),
);
const file = path.resolve(import.meta.dirname, '../src/emoji/names.json');
writeFileSync(file, `${JSON.stringify({ version: VERSION, emoji, names })}\n`);
console.log(`${emoji.length} emoji in ${LANGUAGES.length} languages, CLDR ${VERSION}`);
