import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { root } from '../own-server';

test('npm run -s extract prints one JSON line a page, and goes on after a page that cannot be read', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-extract-'));
  try {
    const paragraph =
      '<p>The channel is cleared every ninth year, and nobody had thought to ask what the silt does to the light.</p>';
    writeFileSync(
      path.join(folder, 'page.html'),
      `<html lang=en><head><title>Silt | Tidewater</title><meta name=author content="M. Oduya"></head><body><nav><a href=/>Home</a></nav><h1>Silt</h1>${paragraph.repeat(4)}<img src="a.jpg" alt="A"></body>`,
    );
    writeFileSync(path.join(folder, 'archive.zip'), Buffer.from('504b0304', 'hex'));
    writeFileSync(
      path.join(folder, 'pages.jsonl'),
      ['page.html', 'archive.zip', 'missing.html']
        .map((file) => JSON.stringify({ file, url: 'https://example.org/x/' }))
        .join('\n'),
    );
    const { stdout } = spawnSync('npm', ['run', '-s', 'extract', '--', '--list', path.join(folder, 'pages.jsonl')], {
      cwd: root,
      encoding: 'utf8',
    });
    const lines = stdout
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(lines).toHaveLength(3);
    const [page, archive, missing] = lines;
    expect(Object.keys(page ?? {})).toEqual(
      'file url title byline authors siteName publishedAt modifiedAt language leadImageUrl canonicalUrl licenceUrl facts nextPageUrl text html markdown wordCount minutes cameThrough cpuMs'.split(
        ' ',
      ),
    );
    expect(page).toMatchObject({
      file: 'page.html',
      title: 'Silt',
      byline: 'M. Oduya',
      siteName: 'Tidewater',
      language: 'en',
      wordCount: 80,
      cameThrough: { verdict: 'whole' },
    });
    expect(String(page?.text).split('\n\n')).toHaveLength(4);
    expect(page?.html).toContain('https://example.org/x/a.jpg');
    const why = spawnSync('npm', ['run', '-s', 'extract', '--', '--why', path.join(folder, 'page.html')], {
      cwd: root,
      encoding: 'utf8',
    })
      .stdout.trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { text: string; isText: boolean; reasons: { feature: string }[] });
    expect(why.map(({ text, isText }) => [text.slice(0, 11), isText])).toEqual([
      ['Silt', true],
      ...Array.from({ length: 4 }, () => ['The channel', true]),
    ]);
    expect(why[1]?.reasons[0]?.feature).toEqual(expect.any(String));
    expect(archive).toMatchObject({ file: 'archive.zip', error: expect.stringContaining('ZIP') });
    expect(missing).toMatchObject({ file: 'missing.html', error: expect.any(String) });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
