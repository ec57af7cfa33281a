import sharp from 'sharp';
import { scannedPages } from './pdf';

/** A page as a scanner makes it: grain, so that it is not small. */
const scan = (shade: number) =>
  sharp({
    create: {
      width: 700,
      height: 900,
      channels: 3,
      background: '#ddd',
      noise: { type: 'gaussian', mean: shade, sigma: 30 },
    },
  })
    .jpeg({ quality: 70 })
    .toBuffer();

/** A PDF of pages that are pictures (ISO 32000-1): each drawn over all of its page. */
function pdfOf(pictures: readonly Buffer[], filter = '/DCTDecode'): Buffer {
  const objects: Buffer[] = [];
  const add = (dictionary: string, stream?: Buffer) => {
    const head = Buffer.from(`${objects.length + 1} 0 obj\n${dictionary}\n`, 'latin1');
    const body = stream ? [Buffer.from('stream\n'), stream, Buffer.from('\nendstream\n')] : [];
    objects.push(Buffer.concat([head, ...body, Buffer.from('endobj\n')]));
  };
  const kids = pictures.map((_, n) => `${3 + 3 * n} 0 R`).join(' ');
  add('<< /Type /Catalog /Pages 2 0 R >>');
  add(`<< /Type /Pages /Kids [${kids}] /Count ${pictures.length} >>`);
  pictures.forEach((picture, n) => {
    const at = 3 + 3 * n;
    const drawn = Buffer.from('q 600 0 0 800 0 0 cm /P Do Q');
    add(
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents ${at + 1} 0 R /Resources << /XObject << /P ${at + 2} 0 R >> >> >>`,
    );
    add(`<< /Length ${drawn.length} >>`, drawn);
    add(
      `<< /Type /XObject /Subtype /Image /Width 700 /Height 900 /ColorSpace /DeviceRGB /BitsPerComponent 8 /Filter ${filter} /Length ${picture.length} >>`,
      picture,
    );
  });
  const head = Buffer.from('%PDF-1.4\n');
  let at = head.length;
  const places = objects.map((each) => {
    const place = at;
    at += each.length;
    return `${String(place).padStart(10, '0')} 00000 n \n`;
  });
  const end = `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${places.join('')}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${at}\n%%EOF`;
  return Buffer.concat([head, ...objects, Buffer.from(end)]);
}

describe('a PDF that was scanned', () => {
  it('has its pages as they were put in, in their order', async () => {
    const pages = [await scan(180), await scan(210)];
    const found = scannedPages(pdfOf(pages), 10);
    for (const [n, page] of found.entries()) {
      // With the end of the line before `endstream`, which no reader of JPEG minds.
      expect(page.subarray(0, pages[n]?.length)).toEqual(pages[n]);
      expect(await sharp(page).metadata()).toMatchObject({ format: 'jpeg', width: 700, height: 900 });
    }
    expect(found).toHaveLength(2);
  });

  it('has none where they were packed in a way that is not read, or are no pages', async () => {
    const sign = await sharp({ create: { width: 40, height: 40, channels: 3, background: '#111' } })
      .jpeg()
      .toBuffer();
    expect(scannedPages(pdfOf([await scan(180)], '/CCITTFaxDecode'), 10)).toEqual([]);
    expect(scannedPages(pdfOf([sign]), 10)).toEqual([]);
  });

  it('gives no more pages than are asked for', async () => {
    const pages = await Promise.all([150, 170, 190].map(scan));
    expect(scannedPages(pdfOf(pages), 2)).toHaveLength(2);
    expect(scannedPages(Buffer.from('%PDF-1.7\nstream'), 2)).toEqual([]);
  });
});
