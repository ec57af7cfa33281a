import fc from 'fast-check';
import { liesAround, metresApart, placeAsked, placeInWords, readPlace } from '.';

const point = fc.record({
  latitude: fc.double({ min: -90, max: 90, noNaN: true }),
  longitude: fc.double({ min: -180, max: 180, noNaN: true }),
});

describe('how far two places are apart', () => {
  // Airports of Nashville and Los Angeles: the worked example that is handed on with the formula (from memory; 2,886.4 km on a
  // sphere of 6,371 km).
  it('is what the formula’s worked example says', () => {
    const apart = metresApart({ latitude: 36.12, longitude: -86.67 }, { latitude: 33.94, longitude: -118.4 });
    expect(apart / 1000).toBeCloseTo(2886.45, 1);
  });

  // A minute of arc on a meridian is a nautical mile, 1,852 m (First International Extraordinary Hydrographic Conference, 1929).
  it('is a nautical mile for a minute of arc, nearly', () => {
    const apart = metresApart({ latitude: 59, longitude: 3 }, { latitude: 59 + 1 / 60, longitude: 3 });
    expect(Math.abs(apart - 1852)).toBeLessThan(2);
  });

  it('is as far back, never more than half around, and nothing to itself', () => {
    fc.assert(
      fc.property(point, point, (a, b) => {
        expect(metresApart(a, b)).toBeCloseTo(metresApart(b, a), 3);
        expect(metresApart(a, b)).toBeLessThanOrEqual(Math.PI * 6_371_009);
        expect(metresApart(a, a)).toBe(0);
      }),
    );
  });
});

describe('a place that is asked for', () => {
  it('is a point, with how far around it where that is said', () => {
    expect(readPlace('58.981, -2.96')).toEqual({ latitude: 58.981, longitude: -2.96, metres: 1000 });
    expect(readPlace('58.981,-2.96,5km')).toMatchObject({ metres: 5000 });
    expect(readPlace('58.981,-2.96,300m')).toMatchObject({ metres: 300 });
    // RFC 5870, section 6.1.
    expect(readPlace('geo:13.4125,103.8667')).toMatchObject({ latitude: 13.4125, longitude: 103.8667 });
  });

  it.each(['', 'quay', '91,0', '0,181', '58.9', '58.9;2.9', '1,2,3', '1,2,3mi'])('is none of %j', (written) => {
    expect(readPlace(written)).toBeNull();
  });

  it('is written so that it is read back, some ten metres from where it was', () => {
    fc.assert(
      fc.property(point, (a) => {
        const read = readPlace(placeAsked(a));
        expect(read && metresApart(a, read)).toBeLessThan(12);
      }),
    );
    expect(placeInWords({ latitude: -1.5, longitude: 2 })).toBe('1.5000° S, 2.0000° E');
  });

  it('has in it what may lie there, as well as that is known', () => {
    const quay = { latitude: 58.981, longitude: -2.96 };
    const away = { latitude: 58.981 + 0.012, longitude: -2.96 };
    expect(liesAround({ ...away, within: 10 }, { ...quay, metres: 1000 })).toBe(false);
    expect(liesAround({ ...away, within: 500 }, { ...quay, metres: 1000 })).toBe(true);
  });
});
