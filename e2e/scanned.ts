import { readFileSync } from 'node:fs';
import path from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';

/** A picture as it is packed into a PDF: its dictionary's own entries, and its bytes. */
interface Packed {
  entries: string;
  bytes: Buffer;
}

const WIDTH = 1700;
/** As many lines as libtiff packs into one strip, so that the strip is all of the picture. */
const HEIGHT = 256;
const SIZE = `/Width ${WIDTH} /Height ${HEIGHT}`;

/** Lines of print, in greys, a byte for each point. */
const printed = (...lines: readonly string[]) =>
  sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}"><rect width="${WIDTH}" height="${HEIGHT}" fill="#fff"/>${lines
        .map((line, n) => `<text x="120" y="${90 + 80 * n}" font-size="46" font-family="DejaVu Serif">${line}</text>`)
        .join('')}</svg>`,
    ),
  )
    .flatten()
    .greyscale()
    .raw()
    .toBuffer();
const drawn = async (lines: readonly string[]) =>
  sharp(await printed(...lines), { raw: { width: WIDTH, height: HEIGHT, channels: 1 } });

/** The lines of a picture in black and white (ITU-T T.6; written by libtiff), and whether 0 is black in it. */
async function asLines(lines: readonly string[]): Promise<{ bytes: Buffer; isBlack1: boolean }> {
  const tiff = await (
    await drawn(lines)
  )
    .threshold(128)
    .toColourspace('b-w')
    .tiff({ compression: 'ccittfax4', bitdepth: 1 })
    .toBuffer();
  const [at = 0, length = 0, ink = 0] = [273, 279, 262].map((tag) => tiffField(tiff, tag));
  return { bytes: tiff.subarray(at, at + length), isBlack1: ink !== 0 };
}

/** As a fax packs it. */
export async function asFax(...lines: readonly string[]): Promise<Packed> {
  const { bytes, isBlack1 } = await asLines(lines);
  return {
    entries: `${SIZE} /ColorSpace /DeviceGray /BitsPerComponent 1 /Filter /CCITTFaxDecode /DecodeParms << /K -1 /Columns ${WIDTH} /Rows ${HEIGHT} /BlackIs1 ${isBlack1} >>`,
    bytes,
  };
}

/** As JBIG2 (ITU-T T.88): one page, one generic region, its lines coded as a fax's are (6.2.6). */
export async function asJbig2(...lines: readonly string[]): Promise<Packed> {
  const { bytes } = await asLines(lines);
  const numbers = (...values: readonly number[]) => {
    const out = Buffer.alloc(4 * values.length);
    values.forEach((value, n) => out.writeUInt32BE(value, 4 * n));
    return out;
  };
  // 7.2: its number, its type, what it refers to (nothing), its page, its length.
  const segment = (number: number, type: number, data: Buffer) =>
    Buffer.concat([numbers(number), Buffer.of(type, 0, 1), numbers(data.length), data]);
  const pageInformation = Buffer.concat([numbers(WIDTH, HEIGHT, 0, 0), Buffer.of(0, 0, 0)]);
  const region = Buffer.concat([numbers(WIDTH, HEIGHT, 0, 0), Buffer.of(0), Buffer.of(1), bytes]);
  return {
    entries: `${SIZE} /ColorSpace /DeviceGray /BitsPerComponent 1 /Filter /JBIG2Decode`,
    bytes: Buffer.concat([segment(0, 48, pageInformation), segment(1, 38, region)]),
  };
}

/** What stands in asJpeg2000. */
export const IN_JPEG_2000 = ['Hawsers and their splices', 'are kept in the long shed'];

/** As JPEG 2000 (ISO/IEC 15444-1), written by OpenJPEG 2.5 (`opj_compress -r 120`): there is no encoder among the packages. */
export const asJpeg2000 = (): Packed => ({
  entries: `${SIZE} /Filter /JPXDecode`,
  bytes: readFileSync(path.join(import.meta.dirname, 'files/scanned.jp2')),
});

/** The first value of a field of a little-endian TIFF file (TIFF 6.0, section 2). */
function tiffField(tiff: Buffer, wanted: number): number {
  const directory = tiff.readUInt32LE(4);
  for (let n = 0; n < tiff.readUInt16LE(directory); n++) {
    const at = directory + 2 + 12 * n;
    if (tiff.readUInt16LE(at) !== wanted) continue;
    const [isShort, count] = [tiff.readUInt16LE(at + 2) === 3, tiff.readUInt32LE(at + 4)];
    const place = (isShort ? 2 : 4) * count > 4 ? tiff.readUInt32LE(at + 8) : at + 8;
    return isShort ? tiff.readUInt16LE(place) : tiff.readUInt32LE(place);
  }
  throw new Error(`no field ${wanted}`);
}

/** As whoever packs without loss does (RFC 1950). */
export async function asFlate(...lines: readonly string[]): Promise<Packed> {
  const raw = await printed(...lines);
  return {
    entries: `${SIZE} /ColorSpace /DeviceGray /BitsPerComponent 8 /Filter /FlateDecode`,
    bytes: deflateSync(raw),
  };
}

/** As most scanners do. */
export async function asJpeg(...lines: readonly string[]): Promise<Packed> {
  const { data, info } = await (await drawn(lines)).jpeg().toBuffer({ resolveWithObject: true });
  const space = info.channels === 1 ? 'DeviceGray' : 'DeviceRGB';
  return { entries: `${SIZE} /ColorSpace /${space} /BitsPerComponent 8 /Filter /DCTDecode`, bytes: data };
}

/** A sign of a few pixels: no page. */
export const asSign = (): Packed => ({
  entries: '/Width 40 /Height 40 /ColorSpace /DeviceGray /BitsPerComponent 8 /Filter /FlateDecode',
  bytes: deflateSync(Buffer.alloc(1600, 17)),
});

/** A PDF of pages that are pictures (ISO 32000-1); in the file the last one stands first. */
export function pdfOf(pages: readonly Packed[]): Buffer {
  const objects: Buffer[] = [];
  const add = (dictionary: string, stream?: Buffer) => {
    const body = stream ? [Buffer.from('stream\n'), stream, Buffer.from('\nendstream\n')] : [];
    objects.push(Buffer.concat([Buffer.from(`${dictionary}\n`, 'latin1'), ...body]));
  };
  const objectOf = (n: number) => 3 + 3 * n;
  add('<< /Type /Catalog /Pages 2 0 R >>');
  add(`<< /Type /Pages /Kids [${pages.map((_, n) => `${objectOf(n)} 0 R`).join(' ')}] /Count ${pages.length} >>`);
  pages.forEach(({ entries, bytes }, n) => {
    const at = objectOf(n);
    const drawn = Buffer.from(`q 600 0 0 ${(600 * HEIGHT) / WIDTH} 0 0 cm /P Do Q`);
    add(
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 ${(600 * HEIGHT) / WIDTH}] /Contents ${at + 1} 0 R /Resources << /XObject << /P ${at + 2} 0 R >> >> >>`,
    );
    add(`<< /Length ${drawn.length} >>`, drawn);
    add(`<< /Type /XObject /Subtype /Image ${entries} /Length ${bytes.length} >>`, bytes);
  });
  const parts = [Buffer.from('%PDF-1.4\n')];
  const places: number[] = [];
  let at = parts[0]?.length ?? 0;
  for (let n = objects.length - 1; n >= 0; n--) {
    const part = Buffer.concat([Buffer.from(`${n + 1} 0 obj\n`), objects[n] ?? Buffer.of(), Buffer.from('endobj\n')]);
    places[n] = at;
    at += part.length;
    parts.push(part);
  }
  const table = places.map((place) => `${String(place).padStart(10, '0')} 00000 n \n`).join('');
  const end = `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${table}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${at}\n%%EOF`;
  return Buffer.concat([...parts, Buffer.from(end)]);
}
