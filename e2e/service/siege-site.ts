import { once } from 'node:events';
import http from 'node:http';
import { createDeflate, gzipSync } from 'node:zlib';
import sharp from 'sharp';

/** What a hostile site may answer, beside what an honest one does. */
export interface SiegeSite {
  origin: string;
  /** Addresses by kind of bomb. */
  bombs: Readonly<Record<string, (n: number) => string>>;
  honest(n: number): string;
  close(): void;
}

type Answer = { type: string; body: Buffer; headers?: Record<string, string> };

/** A site on one port, under as many names as are asked for. */
export async function siegeSite(port: number): Promise<SiegeSite> {
  const page = (html: string): Answer => ({ type: 'text/html', body: Buffer.from(html) });
  const photo = await sharp({
    create: {
      width: 1600,
      height: 1200,
      channels: 3,
      noise: { type: 'gaussian', mean: 120, sigma: 30 },
      background: '#345',
    },
  })
    .jpeg()
    .toBuffer();
  const avif = await plainAvif(3400);
  const hugeAvif = await plainAvif(7600);
  const nested = gzipSync(`<title>Deep</title>${'<i>'.repeat(1_300_000)}`);
  const pdf = await pdfBomb();
  const answers: Readonly<Record<string, Answer>> = {
    '/photo.jpg': { type: 'image/jpeg', body: photo },
    '/flat.avif': { type: 'image/avif', body: avif },
    '/huge.avif': { type: 'image/avif', body: hugeAvif },
    '/slow.svg': { type: 'image/svg+xml', body: Buffer.from(slowDrawing()) },
    '/nested': { type: 'text/html', body: nested, headers: { 'content-encoding': 'gzip' } },
    '/bomb.pdf': { type: 'application/pdf', body: pdf },
    '/slow.md': { type: 'text/markdown', body: Buffer.from(`# Slow\n\n${'*a_ '.repeat(20_000)}`) },
    '/word': page(`<title>One word</title><article><p>${'a'.repeat(9_500_000)}</p></article>`),
    '/avifs': page(
      withPictures('Flat', ['flat.avif', 'flat.avif?2', ...[1, 2, 3, 4, 5, 6].map((n) => `huge.avif?${n}`)]),
    ),
    '/svgs': page(withPictures('Drawn', ['slow.svg', 'slow.svg?2', 'slow.svg?3'])),
  };
  const server = http.createServer((request, response) => {
    const { pathname } = new URL(request.url ?? '/', 'http://x');
    const n = /^\/honest\/(\d+)$/.exec(pathname)?.[1];
    const answer = n ? page(withPictures(`Honest page ${n}`, ['photo.jpg'])) : answers[pathname];
    if (!answer) return void response.writeHead(404).end();
    response.writeHead(200, { 'content-type': answer.type, ...answer.headers }).end(answer.body);
  });
  server.listen(port, '127.0.0.1');
  await once(server, 'listening');
  const at = (host: string, path: string) => `http://${host}.localhost:${port}${path}`;
  const bomb = (path: string) => (n: number) => at('hostile', `${path}?${n}`);
  return {
    origin: `http://127.0.0.1:${port}`,
    bombs: {
      'nested markup': bomb('/nested'),
      'a PDF with a gigabyte inside': bomb('/bomb.pdf'),
      'large flat pictures': bomb('/avifs'),
      'slow drawings': bomb('/svgs'),
      'slow Markdown': bomb('/slow.md'),
      'one word of 9.5 MB': bomb('/word'),
    },
    honest: (n) => at('honest', `/honest/${n}`),
    close: () => server.close(),
  };
}

function withPictures(title: string, pictures: readonly string[]): string {
  const prose = `<p>${title} says at some length what it has to say about ropes and lanterns, and then, as nobody has asked it to stop, it goes on to the subject of anchors.</p>`;
  return `<html lang="en"><title>${title}</title><article><h1>${title}</h1>${prose.repeat(12)}${pictures.map((src) => `<figure><img src="/${src}" alt="A picture" width="800" height="600"></figure>`).join('')}${prose.repeat(4)}</article>`;
}

/** A picture of one colour: some hundred bytes, and many million pixels. */
function plainAvif(side: number): Promise<Buffer> {
  return sharp({ create: { width: side, height: side, channels: 3, background: '#000' } })
    .avif({ effort: 0, quality: 1 })
    .toBuffer();
}

/** Filters over filters: two kilobytes that keep a renderer busy for minutes. */
function slowDrawing(): string {
  const filters = Array.from(
    { length: 24 },
    (_, n) => `<feTurbulence type="turbulence" baseFrequency="0.0${n + 1}" numOctaves="40" result="t${n}"/>`,
  ).join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="3000" height="3000"><filter id="f" x="0" y="0" width="1" height="1">${filters}</filter><rect width="3000" height="3000" filter="url(#f)"/></svg>`;
}

/** One page whose content is a gigabyte of nothing, packed to a megabyte. */
async function pdfBomb(): Promise<Buffer> {
  const deflate = createDeflate();
  const parts: Buffer[] = [];
  deflate.on('data', (part: Buffer) => parts.push(part));
  const spaces = Buffer.alloc(16_000_000, ' ');
  for (let n = 0; n < 63; n++) if (!deflate.write(spaces)) await once(deflate, 'drain');
  deflate.end();
  await once(deflate, 'end');
  const packed = Buffer.concat(parts);
  return Buffer.concat([
    Buffer.from(
      `%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj\n3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 600 800]/Contents 4 0 R>>endobj\n4 0 obj<</Length ${packed.length}/Filter/FlateDecode>>stream\n`,
    ),
    packed,
    Buffer.from('\nendstream endobj\ntrailer<</Root 1 0 R>>'),
  ]);
}
