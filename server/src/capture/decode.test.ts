import { gzipSync } from 'node:zlib';
import { causeWords } from '@dorvel/core/wording';
import { decodePage } from './decode';

const html = (body: Buffer, type = 'text/html') => {
  const decoded = decodePage(body, type);
  if (!decoded.ok) throw new Error(decoded.cause.code);
  return decoded.html;
};

describe('decodePage', () => {
  // WHATWG HTML 13.2.3.2 (order of evidence: BOM, header, meta) and WHATWG Encoding (labels, the bytes of each encoding).
  test.each([
    ['UTF-8 by header', Buffer.from('<p>Fähre'), 'text/html; charset=utf-8'],
    ['windows-1252 by header', Buffer.from('<p>Fähre', 'latin1'), 'text/html; charset=iso-8859-1'],
    ['windows-1252 by meta', Buffer.from('<meta charset=windows-1252><p>Fähre', 'latin1'), 'text/html'],
    [
      'a byte order mark against a lying header',
      Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), Buffer.from('<p>Fähre')]),
      'text/html; charset=windows-1252',
    ],
    [
      'UTF-16LE by byte order mark',
      Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('<p>Fähre', 'utf16le')]),
      'text/html',
    ],
    ['UTF-8 that nobody declared', Buffer.from('<p>Fähre'), 'text/html'],
    ['windows-1252 that nobody declared', Buffer.from('<p>Fähre', 'latin1'), ''],
    ['a quoted label', Buffer.from('<p>Fähre', 'latin1'), 'text/html; charset="latin1"'],
  ])('reads %s', (_name, body, type) => {
    expect(html(body, type)).toContain('<p>Fähre');
  });

  it('reads Shift_JIS and KOI8-R', () => {
    expect(html(Buffer.from([0x3c, 0x70, 0x3e, 0x92, 0xaa]), 'text/html; charset=shift_jis')).toBe('<p>潮');
    expect(html(Buffer.from([0x3c, 0x70, 0x3e, 0xed, 0xcf, 0xd2, 0xc5]), 'text/html; charset=koi8-r')).toBe('<p>Море');
  });

  test.each([
    ['nothing', Buffer.alloc(0), 'text/html', /empty/],
    ['white space', Buffer.from(' \n '), 'text/html', /empty/],
    ['a ZIP file', Buffer.from('504b0304aabb', 'hex'), 'text/html', /ZIP/],
    ['a PDF', Buffer.from('%PDF-1.7 …'), 'application/octet-stream', /PDF/],
    ['a picture by its type', Buffer.from('GIF'), 'image/gif', /picture/],
    ['gzip', gzipSync('x'), 'text/html', /compressed/],
    ['bytes', Buffer.from([1, 2, 0, 4]), 'text/html', /not text/],
  ])('refuses %s in words', (_name, body, type, says) => {
    const decoded = decodePage(body, type);
    expect(!decoded.ok && causeWords(decoded.cause)).toMatch(says);
  });

  it('makes paragraphs of plain text, with nothing in it taken for markup', () => {
    expect(html(Buffer.from('First <b>\n\nSecond & last'), 'text/plain')).toContain(
      '<p>First &lt;b&gt;</p><p>Second &amp; last</p>',
    );
  });
});
