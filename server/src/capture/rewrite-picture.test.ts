import sharp from 'sharp';
import { rewritePicture } from './rewrite-picture';

const plain = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#246' } });

describe('a picture is written anew', () => {
  it('at a phone’s size, with a small one where that is wanted', async () => {
    const bytes = await plain(2600, 1300).png().toBuffer();
    const made = await rewritePicture({ bytes, withThumbnail: true, room: 'small' });
    expect(made).toMatchObject({ width: 1280, height: 640 });
    if (made === null || made === 'too large' || !made.thumbnail) throw new Error('not made');
    expect(await sharp(made.full).metadata()).toMatchObject({ format: 'webp', width: 1280 });
    expect(await sharp(made.thumbnail).metadata()).toMatchObject({ width: 160, height: 160 });
    expect(await rewritePicture({ bytes, withThumbnail: false, room: 'small' })).toMatchObject({
      thumbnail: null,
    });
  });

  // EXIF 2.3, Orientation: 6 is a quarter turn.
  it('upright, however the camera was held, and without what else the camera wrote into it', async () => {
    const bytes = await plain(40, 20).jpeg().withMetadata({ orientation: 6 }).toBuffer();
    const made = await rewritePicture({ bytes, withThumbnail: false, room: 'small' });
    expect(made).toMatchObject({ width: 20, height: 40 });
    if (made === null || made === 'too large') throw new Error('not made');
    expect((await sharp(made.full).metadata()).exif).toBeUndefined();
  });

  it.each<[string, 'small' | 'large', number, 'webp' | 'jpeg', boolean]>([
    ['9 million pixels', 'small', 3000, 'webp', false],
    ['9 million pixels', 'large', 3000, 'webp', true],
    ['17 million pixels', 'large', 4130, 'webp', false],
    // Made smaller while it is read.
    ['17 million pixels of JPEG', 'small', 4130, 'jpeg', true],
    ['64 million pixels of JPEG', 'large', 8000, 'jpeg', false],
  ])('or not, by its pixels: %s in the room of the %s ones', async (_what, room, side, format, isMade) => {
    const bytes = await plain(side, side).toFormat(format, { quality: 10 }).toBuffer();
    const made = await rewritePicture({ bytes, withThumbnail: false, room });
    expect(made !== 'too large').toBe(isMade);
    if (isMade) expect(made).toMatchObject({ width: 1280 });
  });

  it('in the room of the large ones when it is a drawing', async () => {
    const bytes = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><rect width="40" height="30"/></svg>',
    );
    expect(await rewritePicture({ bytes, withThumbnail: false, room: 'small' })).toBe('too large');
    expect(await rewritePicture({ bytes, withThumbnail: false, room: 'large' })).toMatchObject({ width: 40 });
  });

  it('in two sizes more when it was saved for itself, the largest all of it', async () => {
    const bytes = await plain(4000, 3000).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    const made = await rewritePicture({ bytes, withThumbnail: true, isItself: true, room: 'small' });
    if (made === null || made === 'too large' || !made.sizes) throw new Error('not made');
    const sizes = await Promise.all(
      [made.sizes.large, made.full, made.sizes.small].map((each) => sharp(each).metadata()),
    );
    expect(sizes.map(({ width, height, exif }) => [width, height, exif])).toEqual([
      [3000, 4000, undefined],
      [1280, 1707, undefined],
      [360, 480, undefined],
    ]);
  });

  it('whole when it was saved for itself, up to 12 million pixels', async () => {
    const bytes = await plain(5000, 4000).jpeg().toBuffer();
    const made = await rewritePicture({ bytes, withThumbnail: false, isItself: true, room: 'large' });
    if (made === null || made === 'too large' || !made.sizes) throw new Error('not made');
    const { width, height } = await sharp(made.sizes.large).metadata();
    expect([width, height]).toEqual([3872, 3098]);
  });

  it('whatever colours it is in, and of one that moves its beginning', async () => {
    const cmyk = await plain(60, 40).toColourspace('cmyk').jpeg().toBuffer();
    expect((await sharp(cmyk).metadata()).space).toBe('cmyk');
    const grey = await plain(60, 40).greyscale().png().toBuffer();
    const frames = await Promise.all(
      ['#f00', '#00f'].map((background) =>
        sharp({ create: { width: 60, height: 40, channels: 3, background } })
          .png()
          .toBuffer(),
      ),
    );
    const moving = await sharp(frames, { join: { animated: true } })
      .gif({ delay: [100, 100] })
      .toBuffer();
    for (const bytes of [cmyk, grey, moving])
      expect(await rewritePicture({ bytes, withThumbnail: true, isItself: true, room: 'small' })).toMatchObject({
        width: 60,
        height: 40,
      });
  });

  it('not when it says that it is larger than anything can be, or has no bytes', async () => {
    // PNG (ISO/IEC 15948, 11.2.2): a header of 60,000 by 60,000 pixels, and nothing behind it.
    const header = Buffer.from('89504e470d0a1a0a0000000d494844520000ea600000ea60080200000000000000', 'hex');
    for (const bytes of [header, Buffer.alloc(0), (await plain(300, 200).png().toBuffer()).subarray(0, 200)]) {
      const made = await rewritePicture({ bytes, withThumbnail: true, isItself: true, room: 'large' });
      expect(made === null || made === 'too large').toBe(true);
    }
  });

  it('never when it is none', async () => {
    const bytes = Buffer.from('not a picture');
    expect(await rewritePicture({ bytes, withThumbnail: true, room: 'small' })).toBeNull();
  });

  // The ICO format: a directory of six bytes and sixteen for each picture, which is a PNG file or the inside of a BMP file (its
  // height doubled for the mask behind it; blue, green, red, alpha; from the last line up).
  const icoOf = (...pictures: readonly { side: number; file: Buffer }[]) => {
    const head = Buffer.alloc(6 + 16 * pictures.length);
    head.writeUInt16LE(1, 2);
    head.writeUInt16LE(pictures.length, 4);
    let at = head.length;
    for (const [n, { side, file }] of pictures.entries()) {
      head.writeUInt8(side % 256, 6 + 16 * n);
      head.writeUInt8(side % 256, 7 + 16 * n);
      head.writeUInt16LE(1, 10 + 16 * n);
      head.writeUInt16LE(32, 12 + 16 * n);
      head.writeUInt32LE(file.length, 14 + 16 * n);
      head.writeUInt32LE(at, 18 + 16 * n);
      at += file.length;
    }
    return Buffer.concat([head, ...pictures.map(({ file }) => file)]);
  };
  const bitmap = (side: number, [red, green, blue]: readonly [number, number, number]) => {
    const head = Buffer.alloc(40);
    for (const [at, value] of [40, side, 2 * side].entries()) head.writeUInt32LE(value, 4 * at);
    head.writeUInt16LE(1, 12);
    head.writeUInt16LE(32, 14);
    const mask = Buffer.alloc(Math.ceil(side / 32) * 4 * side);
    return Buffer.concat([head, Buffer.alloc(4 * side * side, Buffer.from([blue, green, red, 255])), mask]);
  };
  const colourOf = async (bytes: Buffer) => {
    const made = await rewritePicture({ bytes, withThumbnail: false, isIcon: true, room: 'small' });
    if (made === null || made === 'too large') return made;
    const [red = 0, green = 0, blue = 0] = await sharp(made.full).removeAlpha().raw().toBuffer();
    const names = { red, green, blue };
    return [made.width, made.height, Object.entries(names).sort(([, a], [, b]) => b - a)[0]?.[0]];
  };

  it('as the icon of a site from an ICO file: the largest picture in it, however that is written', async () => {
    const png = await sharp({ create: { width: 32, height: 32, channels: 4, background: '#c00' } })
      .png()
      .toBuffer();
    const small = { side: 16, file: bitmap(16, [0, 200, 0]) };
    expect(await colourOf(icoOf(small, { side: 32, file: png }))).toEqual([48, 48, 'red']);
    expect(await colourOf(icoOf(small))).toEqual([48, 48, 'green']);
    expect(await colourOf(icoOf({ side: 64, file: bitmap(64, [0, 0, 220]) }, small))).toEqual([48, 48, 'blue']);
  });

  it.each([
    ['cut off', icoOf({ side: 16, file: bitmap(16, [1, 2, 3]) }).subarray(0, 90)],
    ['of no pictures', icoOf()],
    ['of very many', icoOf(...Array.from({ length: 40 }, () => ({ side: 16, file: bitmap(16, [1, 2, 3]) })))],
    [
      'of a picture that says it is larger than its file',
      icoOf({ side: 16, file: Buffer.concat([bitmap(16, [1, 2, 3]).fill(0x7f, 4, 10)]) }),
    ],
  ])('or not from an ICO file %s', async (_what, bytes) => expect(await colourOf(bytes)).toBeNull());
});
