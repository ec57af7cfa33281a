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

  it('never when it is none', async () => {
    const bytes = Buffer.from('not a picture');
    expect(await rewritePicture({ bytes, withThumbnail: true, room: 'small' })).toBeNull();
  });
});
