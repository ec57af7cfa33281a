import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

const ROOT = path.join(__dirname, '../../..');
/** Where outcomes are data, and nothing is said to a reader. */
const WORDLESS = [
  ...['model', 'records', 'queue', 'reading', 'cards', 'copies', 'strand', 'sync'].map((part) => `core/src/${part}`),
  'core/src/extract',
  ...['capture', 'fetching', 'feeds', 'publish', 'tasks'].map((part) => `server/src/${part}`),
];
/** "A capital, some words, and an end.": what is written for somebody to read. */
const SENTENCE = /^(?:[A-Z]|…)[^\n]* [^\n]*[.…!?]$/;

/** The sentences in a file's strings, and in what surrounds the values of its templates. */
function sentencesIn(file: string): string[] {
  const found: string[] = [];
  const visit = (node: ts.Node) => {
    const text =
      ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)
        ? node.text
        : ts.isTemplateExpression(node)
          ? node.head.text + node.templateSpans.map(({ literal }) => `x${literal.text}`).join('')
          : '';
    // What is thrown where only a fault of ours can be the cause is for whoever reads the log.
    const isThrown = ts.isNewExpression(node.parent) && node.parent.expression.getText() === 'Error';
    if (SENTENCE.test(text) && !isThrown) found.push(text);
    ts.forEachChild(node, visit);
  };
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
  ts.forEachChild(source, visit);
  return found;
}

test.each(WORDLESS)('%s says nothing to the reader: words are made in core/wording', (folder) => {
  const files = readdirSync(path.join(ROOT, folder), { recursive: true, encoding: 'utf8' }).filter(
    (name) => name.endsWith('.ts') && !name.endsWith('.test.ts'),
  );
  expect(files.length).toBeGreaterThan(0);
  const found = files.flatMap((name) =>
    sentencesIn(path.join(ROOT, folder, name)).map((sentence) => `${name}: ${sentence}`),
  );
  expect(found).toEqual([]);
});
