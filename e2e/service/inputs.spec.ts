import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { printOf } from '../../demo/small-web/prints';
import { root } from '../own-server';
import { asFax, asFlate, asJbig2, asJpeg, asJpeg2000, asSign, pdfOf } from '../scanned';

let folder: string;
test.beforeEach(() => void (folder = mkdtempSync(path.join(tmpdir(), 'dorvel-inputs-'))));
test.afterEach(() => rmSync(folder, { recursive: true, force: true }));

interface Extracted {
  title: string;
  authors: string[];
  publishedAt: string | null;
  text: string;
  html: string;
  cameThrough: { verdict: string };
  error?: string;
}

function extract(name: string, content: string | Buffer): Extracted {
  const file = path.join(folder, name);
  writeFileSync(file, content);
  const { stdout } = spawnSync('npm', ['run', '-s', 'extract', '--', '--url', `https://shelf.example/${name}`, file], {
    cwd: root,
    encoding: 'utf8',
  });
  return JSON.parse(stdout) as Extracted;
}

const TOPICS = 'harbour tides anchors ropes lanterns kettles larch planking seams caulking'.split(' ');
const paragraph = (n: number) =>
  `Paragraph number ${n} speaks at some length about ${TOPICS[n % TOPICS.length]}, because whoever mends a boat must understand the misunderstandings of earlier boatbuilders; and it ends only after thirty-odd words, with a full stop.`;
const SECTIONS = ['The first winter', 'What the timber told', 'Launching day'];
const words = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

test('a PDF as the browser prints it, in two columns with running heads, comes out in reading order', async ({
  page,
}) => {
  const body = SECTIONS.map(
    (heading, at) =>
      `<h2>${heading}</h2>${Array.from({ length: 14 }, (_, n) => `<p>${paragraph(at * 14 + n)}</p>`).join('')}`,
  ).join('');
  await page.setContent(
    `<html lang="en"><head><title>Mending the Tern</title><style>
      body { font: 11pt/1.4 serif } h1 { font-size: 24pt; column-span: all } h2 { font-size: 15pt }
      main { columns: 2; column-gap: 30pt; hyphens: auto; text-align: justify } p { margin: 0 0 8pt }
    </style></head><body><main><h1>Mending the Tern</h1>${body}</main></body></html>`,
  );
  const pdf = await page.pdf({
    format: 'A4',
    displayHeaderFooter: true,
    headerTemplate: '<span style="font-size:8px;margin-left:40px">Skerrow boat papers, volume 3</span>',
    footerTemplate: '<span style="font-size:8px;margin-left:260px">Page <span class="pageNumber"></span></span>',
    margin: { top: '70px', bottom: '70px', left: '50px', right: '50px' },
  });
  const { title, text, html, cameThrough } = extract('tern.pdf', pdf);
  expect(cameThrough.verdict).toBe('whole');
  expect(title).toBe('Mending the Tern');
  expect(text).not.toMatch(/Skerrow boat papers|Page \d/);
  expect([...html.matchAll(/<h\d>(.*?)<\/h\d>/g)].map(([, heading]) => heading)).toEqual(SECTIONS);
  const expected = SECTIONS.flatMap((heading, at) => [
    heading,
    ...Array.from({ length: 14 }, (_, n) => paragraph(at * 14 + n)),
  ]);
  expect(words(text)).toEqual(words(expected.join(' ')));
  expect(text.split('\n\n').length).toBe(expected.length);
});

test('a PDF of scanned pages, without a text in it, is its pages as pictures', async ({ page }) => {
  const scans = [await printOf('minutes-1')?.made, await printOf('minutes-2')?.made];
  await page.setContent(
    `<html><head><title>Minutes</title></head><body style="margin:0">${scans
      .map(
        (scan) => `<img style="width:100%;break-after:page" src="data:image/jpeg;base64,${scan?.toString('base64')}">`,
      )
      .join('')}</body></html>`,
  );
  const { title, text, html, cameThrough } = extract('minutes.pdf', await page.pdf({ format: 'A4' }));
  expect([title, text, cameThrough.verdict]).toEqual(['Minutes', '', 'whole']);
  expect([...html.matchAll(/<img[^>]*src="([^"]*)"/g)].map(([, src]) => src)).toEqual([
    'https://shelf.example/minutes.pdf#page-1',
    'https://shelf.example/minutes.pdf#page-2',
  ]);
});

test('scanned pages are found however they were packed, in their order; a sign is no page', async () => {
  const packed = [
    ...[await asFax('The first'), asSign(), await asFlate('The second'), await asJpeg('The third')],
    ...[await asJbig2('The fourth'), asJpeg2000()],
  ];
  const { html, cameThrough } = extract('packed.pdf', pdfOf(packed));
  expect(cameThrough.verdict).toBe('whole');
  expect(html.match(/<img/g)).toHaveLength(5);
  const signs = extract('sign.pdf', pdfOf([asSign()]));
  expect([signs.cameThrough.verdict, signs.html.includes('<img')]).toEqual(['failed', false]);
});

test('a page saved by the browser with its pictures (MHTML, RFC 2557) is the page', async ({ page }) => {
  await page.route('https://boats.example/**', (route) =>
    route.request().url().endsWith('.png')
      ? route.fulfill({
          contentType: 'image/png',
          body: Buffer.from(
            'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
            'base64',
          ),
        })
      : route.fulfill({
          contentType: 'text/html; charset=utf-8',
          body: `<html lang="en"><head><title>Café larch</title></head><body><nav><a href="/">Home</a></nav><article><h1>Café larch</h1>${[1, 2, 3, 4].map((n) => `<p>${paragraph(n)}</p>`).join('')}<img src="plank.png" width="400" height="300" alt="A plank"></article></body></html>`,
        }),
  );
  await page.goto('https://boats.example/cafe/larch');
  const session = await page.context().newCDPSession(page);
  const { data } = await session.send('Page.captureSnapshot', { format: 'mhtml' });
  const { title, text, html } = extract('larch.mhtml', data);
  expect(title).toBe('Café larch');
  expect(text.split('\n\n').filter((block) => block.startsWith('Paragraph'))).toHaveLength(4);
  expect(html).toContain('src="https://boats.example/cafe/plank.png"');
  expect(text).not.toContain('Home');
});

test('a letter has its subject as title, its sender as author and its date', () => {
  const letter = extract(
    'letter.eml',
    [
      'From: "Bo Lindqvist" <bo@boats.example>',
      'To: reader@example.org',
      'Subject: =?utf-8?Q?F=C3=A4hre?= in November',
      'Date: Tue, 03 Nov 2026 09:45:00 +0100',
      'Message-ID: <1@boats.example>',
      'MIME-Version: 1.0',
      'Content-Type: text/html; charset=utf-8',
      '',
      `<table><tr><td>${[1, 2, 3].map((n) => `<p>${paragraph(n)}</p>`).join('')}</td></tr></table>`,
    ].join('\r\n'),
  );
  expect(letter).toMatchObject({
    title: 'Fähre in November',
    authors: ['Bo Lindqvist'],
    publishedAt: '2026-11-03T08:45:00.000Z',
  });
  expect(letter.text.split('\n\n')).toHaveLength(3);
});

test('Markdown and plain text are read as what they are', () => {
  const markdown = extract(
    'notes.md',
    `# Notes on rope\n\n${paragraph(1)}\n\n- three strand\n- plaited\n\n| fibre | stretch |\n|---|---|\n| hemp | little |\n| nylon | much |\n\nA note.[^1]\n\n[^1]: ${paragraph(2)}\n`,
  );
  expect(markdown.title).toBe('Notes on rope');
  expect(markdown.html).toMatch(/<li>three strand<\/li>.*<table>.*<td>nylon<\/td>/s);
  expect(markdown.html).toMatch(/<a href="#(in-\d)"[^>]*>1<\/a>.*id="\1"/s);
  const plain = extract('plain.txt', `${paragraph(1)}\n\n${paragraph(2)} <b>not bold</b>\n`);
  expect(plain.text.split('\n\n')).toHaveLength(2);
  expect(plain.text).toContain('<b>not bold</b>');
});

test('a damaged PDF is refused in words', () => {
  expect(extract('broken.pdf', '%PDF-1.7\nnothing of the kind').error).toContain('damaged');
});
