import { Place } from '@dorvel/core/model';

/**
 * Where a picture was taken, as its camera wrote into it (Exif 2.3, GPS attributes).
 *
 * @returns null where it did not, or where that cannot be read
 */
export async function takenAt(file: Blob): Promise<Place | null> {
  const [{ default: ExifReader }, bytes] = await Promise.all([import('exifreader'), file.arrayBuffer()]);
  try {
    const { gps, exif } = ExifReader.load(bytes, {
      expanded: true,
      includeTags: { gps: true, exif: ['GPSHPositioningError'] },
    });
    const error = Number(exif?.GPSHPositioningError?.description ?? 0);
    const read = Place.safeParse({
      latitude: rounded(gps?.Latitude),
      longitude: rounded(gps?.Longitude),
      within: Number.isFinite(error) ? Math.round(error) : 0,
    });
    return read.success ? read.data : null;
  } catch (_unread) {
    // What has nothing written into it, or something else than this, says nothing of a place.
    return null;
  }
}

const rounded = (degrees: number | undefined) => degrees && Math.round(degrees * 10_000) / 10_000;
