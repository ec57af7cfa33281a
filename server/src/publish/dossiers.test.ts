import '@citation-js/plugin-bibtex';
import '@citation-js/plugin-ris';
import { execFileSync } from 'node:child_process';
import { Cite } from '@citation-js/core';
import { dossierFeed, dossierPage, writeAtom, writeJsonFeed } from '@dorvel/core/formats';
import type { DossierFormat } from '@dorvel/core/model';
import { REGISTRY } from '@dorvel/core/records';
import { getElementsByTagName, textContent } from 'domutils';
import { strFromU8, unzipSync } from 'fflate';
import { parseDocument } from 'htmlparser2';
import { simpleParser } from 'mailparser';
import mammoth from 'mammoth';
import { parse } from 'parse5';
import * as XLSX from 'xlsx';
import { accountRepository } from '../accounts/accounts';
import { dossierFile } from './documents/files';
import { isKeyOf, keyOf, type OpenedDossier } from './dossiers';
import { tricked, TRICKS } from './handed-on.test-data';

let at: Awaited<ReturnType<typeof tricked>>;
let open: OpenedDossier;

beforeAll(async () => {
  at = await tricked();
  const opened = await at.dossiers.open(at.accountId, at.dossierId);
  if (!opened) throw new Error('there is no dossier');
  open = opened;
});
afterAll(() => at.close());

async function file(format: DossierFormat): Promise<Buffer> {
  const { library, files } = at;
  const { content } = await dossierFile(open, format, { library, files, isWanted: () => true, step: () => undefined });
  return Buffer.from(content);
}
const written = async (format: DossierFormat) => (await file(format)).toString('utf8');
/** As a line of ours has it: marks of direction and line ends are no part of it. */
const plain = (words: string) =>
  words
    .replace(/[\u202A-\u202E\u2066-\u2069]/g, '')
    .replace(/\s+/g, ' ')
    .trim();

describe('words that would be something else', () => {
  /** All elements of a page, and their attributes. */
  function elements(markup: string) {
    const found: { name: string; attributes: Record<string, string>; text: string }[] = [];
    const visit = (node: {
      nodeName: string;
      attrs?: { name: string; value: string }[];
      childNodes?: never[];
      value?: string;
    }) => {
      if (node.attrs)
        found.push({
          name: node.nodeName,
          attributes: Object.fromEntries(node.attrs.map(({ name, value }) => [name, value])),
          text: textOf(node),
        });
      for (const child of node.childNodes ?? []) visit(child);
    };
    const textOf = (node: { value?: string; childNodes?: never[] }): string =>
      node.value ?? (node.childNodes ?? []).map(textOf).join('');
    visit(parse(markup) as never);
    return found;
  }

  it.each(['html', 'letter'] as const)('are words on a page: %s', async (format) => {
    const markup =
      format === 'letter' ? String((await simpleParser(await file('letter'))).html) : await written('html');
    const all = elements(markup);
    expect(all.filter(({ name }) => /^(?:script|iframe|object|form|base|link)$/.test(name))).toEqual([]);
    expect(all.flatMap(({ attributes }) => Object.keys(attributes).filter((name) => name.startsWith('on')))).toEqual(
      [],
    );
    expect(all.filter(({ name }) => name === 'h1')).toHaveLength(1);
    expect(all.filter(({ name }) => name === 'title').map(({ text }) => text)).toEqual([plain(TRICKS[5] ?? '')]);
    const links = all.flatMap(({ attributes }) => attributes.href ?? []);
    expect(links.filter((href) => !/^(?:https?:\/\/|#)/.test(href))).toEqual([]);
    // But in the reader's own words, once.
    expect(markup.match(/[\u202A-\u202E\u2066-\u2069]/g)).toHaveLength(4);
  });

  it('are text in a spreadsheet, read by another program: numbers are numbers, links lead, nothing is reckoned', async () => {
    const book = XLSX.read(await file('xlsx'), { cellFormula: true, cellNF: true });
    const sheet = book.Sheets.Facts ?? {};
    const cells = Object.entries(sheet).filter(([name]) => !name.startsWith('!')) as [string, XLSX.CellObject][];
    expect(cells.filter(([, { f }]) => f !== undefined)).toEqual([]);
    const row = XLSX.utils.sheet_to_json<Record<string, unknown>>(sheet);
    expect(row).toHaveLength(TRICKS.length);
    expect(row.map(({ Title }) => Title)).toEqual(TRICKS.map(plain));
    expect(row.map(({ Price }) => Price)).toEqual(TRICKS.map((_, n) => 480.5 + n));
    const price = cells.find(([, { v }]) => v === 480.5)?.[1];
    expect(price).toMatchObject({ t: 'n', w: '480.50 EUR' });
    const links = strFromU8(
      unzipSync(new Uint8Array(await file('xlsx')))['xl/worksheets/_rels/sheet1.xml.rels'] ?? new Uint8Array(),
    );
    expect(links).toContain('Target="https://x.example/page?n=0&amp;b=(a)_c"');
  });

  it('are text in a table', async () => {
    const csv = await written('csv');
    const sheet = XLSX.read(csv, { type: 'string', raw: true }).Sheets.Sheet1 ?? {};
    const rows = XLSX.utils.sheet_to_json<string[]>(sheet, { header: 1 });
    // What a spreadsheet would run stands behind an apostrophe (OWASP, "CSV Injection").
    for (const [n, title] of TRICKS.entries())
      expect(rows[n + 1]?.[0]).toBe(/^[=+\-@]/.test(title) ? `'${plain(title)}` : plain(title));
  });

  it('are text in a word processor’s document, read by another program', async () => {
    const { value, messages } = await mammoth.convertToHtml({ buffer: await file('docx') });
    expect(messages.filter(({ type }) => type === 'error')).toEqual([]);
    const all = elements(value);
    const texts = all.filter(({ name }) => name === 'p' || /^h\d$/.test(name)).map(({ text }) => plain(text));
    for (const title of TRICKS) expect(texts).toContain(plain(title));
    expect(all.filter(({ name }) => name === 'script')).toEqual([]);
    expect(all.find(({ name }) => name === 'img')?.attributes.alt).toBe(plain(TRICKS[4] ?? ''));
    // Sources are footnotes: of the passage and of the picture.
    expect(
      all.filter(({ attributes }) => attributes.id?.startsWith('footnote-') && !attributes.id.includes('ref')),
    ).toHaveLength(2);
    expect(all.filter(({ name }) => name === 'table')).toHaveLength(1);
  });

  it('are text in Markdown, where the reader’s own words stay theirs', async () => {
    const markdown = await written('markdown');
    expect(markdown.startsWith(`---\ntitle: ${JSON.stringify(plain(TRICKS[5] ?? ''))}\n`)).toBe(true);
    expect(markdown).toContain('**Mine:**');
    // The title as it was written for Markdown: its marks are words.
    expect(markdown).toMatch(/\\# no heading|\\\[no]\(/);
  });

  it('are text in references, which come back as they were', async () => {
    const titles = TRICKS.map((title) => plain(title).replace('<b>', '< b>'));
    const fromBibtex = new Cite(await written('bibtex')).data as { title: string; URL: string }[];
    expect(fromBibtex).toHaveLength(TRICKS.length);
    expect(fromBibtex.map(({ URL: url }) => url)).toEqual(
      TRICKS.map((_, n) => `https://x.example/page?n=${n}&b=(a)_c`),
    );
    const fromRis = new Cite(await written('ris')).data as { title: string }[];
    expect(fromRis.map(({ title }) => title)).toEqual(titles);
    const csl = JSON.parse(await written('csl-json')) as { id: string; title: string }[];
    expect(csl.map(({ title }) => title)).toEqual(titles);
    expect(new Set(csl.map(({ id }) => id)).size).toBe(titles.length);
  });

  it('are text in feeds and bookmarks', async () => {
    const feed = dossierFeed(open.handedOn, open.entries, {
      address: 'https://l.example/f',
      home: 'https://l.example/',
    });
    const atom = getElementsByTagName('entry', parseDocument(writeAtom(feed), { xmlMode: true }), true);
    const inAtom = atom.flatMap((entry) =>
      getElementsByTagName('title', entry, true).map((title) => plain(textContent(title))),
    );
    const inJson = (JSON.parse(writeJsonFeed(feed)) as { items: { title: string }[] }).items.map(({ title }) => title);
    for (const titles of [inAtom, inJson]) for (const title of TRICKS) expect(titles).toContain(plain(title));
    const marks = elements(await written('bookmarks')).filter(({ name }) => name === 'a');
    expect(marks.map(({ text }) => plain(text))).toEqual(TRICKS.map(plain));
  });
});

/** What EPUBCheck (W3C's rules, ported to TypeScript) finds wrong. In a process of its own: it brings its parts as modules do. */
function checkedAsBook(book: Buffer): string[] {
  const script = `
    import { EpubCheck } from '@likecoin/epubcheck-ts';
    import { readFileSync } from 'node:fs';
    const { messages } = await EpubCheck.validate(new Uint8Array(readFileSync(0)));
    const said = messages.filter(({ severity }) => severity !== 'info' && severity !== 'usage');
    process.stdout.write(JSON.stringify(said.map(({ id, message, location }) => [id, message, location?.path].join(' '))));`;
  const options = { input: book, cwd: __dirname, maxBuffer: 10_000_000 };
  return JSON.parse(String(execFileSync(process.execPath, ['--input-type=module', '-e', script], options))) as string[];
}

it('the e-book is sound by EPUB 3.3, as another program checks it', async () => {
  const book = await file('epub');
  expect(checkedAsBook(book)).toEqual([]);
  const files = unzipSync(new Uint8Array(book));
  expect(Object.keys(files)[0]).toBe('mimetype');
  expect(Object.keys(files).filter((name) => name.startsWith('book/text-'))).toHaveLength(TRICKS.length);
  expect(Object.keys(files).filter((name) => name.startsWith('book/pictures/'))).toHaveLength(1);
});

it('shows others no picture that was not put in, no article, and nothing that is not there', () => {
  const page = dossierPage(open.handedOn, {
    style: { href: '/s' },
    picture: (hash) => (open.pictures.has(hash) ? `/p/${hash}` : null),
  });
  expect(page).not.toContain('of it.');
  expect([...open.pictures]).toEqual([at.hash]);
  expect(open.handedOn.compiled.parts.at(-1)?.kind).toBe('gone');
  expect(page).not.toContain(open.handedOn.compiled.parts.at(-1)?.entryId);
});

it('does not tell when something else was written', async () => {
  const { dossiers, accountId, dossierId, library, make } = at;
  const write = async (change: ReturnType<typeof make.note>) => {
    const kind = REGISTRY.of(change);
    await library.change(async (writer) => {
      const made = kind.apply(await writer.record(kind, kind.idOf(change)), change);
      if (made) await writer.putRecord(kind, made);
    });
  };
  await write(make.note({ itemId: null, on: { kind: 'nothing' } }, { text: 'Of nobody else’s business' }));
  expect((await dossiers.open(accountId, dossierId))?.handedOn.updatedAt).toBe(open.handedOn.updatedAt);
});

it('is nobody else’s to open, publish or withdraw', async () => {
  const other = await accountRepository(at.database, Date.now).create('b@example.org', 'B', 'another long passphrase');
  expect(await at.dossiers.open(other?.id ?? '', at.dossierId)).toBeNull();
  await at.dossiers.publish(at.accountId, at.dossierId, { access: 'unlisted', passphrase: null, renew: false });
  await at.dossiers.withdraw(other?.id ?? '', at.dossierId);
  expect(await at.dossiers.row(other?.id ?? '', at.dossierId)).toBeNull();
  expect((await at.dossiers.row(at.accountId, at.dossierId))?.withdrawnAt).toBeNull();
});

describe('an address', () => {
  it('stays when it is changed who may see it, is another when the reader wants one, and knows when it is withdrawn', async () => {
    const { dossiers, accountId, dossierId } = at;
    const wish = { access: 'unlisted' as const, passphrase: null, renew: false };
    await dossiers.publish(accountId, dossierId, wish);
    const first = await dossiers.row(accountId, dossierId);
    await dossiers.publish(accountId, dossierId, { ...wish, access: 'listed' });
    expect((await dossiers.row(accountId, dossierId))?.secret).toBe(first?.secret);
    expect((await dossiers.listed()).map((row) => row.dossierId)).toEqual([dossierId]);
    await dossiers.publish(accountId, dossierId, { ...wish, renew: true });
    expect(await dossiers.at(first?.secret ?? '')).toBeNull();
    expect(await dossiers.listed()).toEqual([]);
    await dossiers.withdraw(accountId, dossierId);
    expect((await dossiers.row(accountId, dossierId))?.withdrawnAt).not.toBeNull();
  });

  it('with a passphrase lets in who gave it, until it is another', async () => {
    const { dossiers, accountId, dossierId } = at;
    await expect(
      dossiers.publish(accountId, dossierId, { access: 'passphrase', passphrase: null, renew: false }),
    ).rejects.toThrow('a passphrase is wanted');
    await dossiers.publish(accountId, dossierId, { access: 'passphrase', passphrase: 'low water', renew: false });
    const row = await dossiers.row(accountId, dossierId);
    if (!row) throw new Error('not handed on');
    expect(await dossiers.isPassphrase(row, 'high water')).toBe(false);
    expect(await dossiers.isPassphrase(row, 'low water')).toBe(true);
    expect(isKeyOf(row, keyOf(row))).toBe(true);
    await dossiers.publish(accountId, dossierId, { access: 'passphrase', passphrase: 'high water', renew: false });
    const changed = await dossiers.row(accountId, dossierId);
    expect(changed && isKeyOf(changed, keyOf(row))).toBe(false);
    expect(isKeyOf(row, undefined)).toBe(false);
  });
});
