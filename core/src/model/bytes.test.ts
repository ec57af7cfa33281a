import { inBase64, inBase64Url } from './bytes';

const bytesOf = (text: string) => Uint8Array.from(Array.from(text, (letter) => letter.charCodeAt(0)));

// RFC 4648, 10: test vectors.
it.each([
  ['', ''],
  ['f', 'Zg=='],
  ['fo', 'Zm8='],
  ['foo', 'Zm9v'],
  ['foobar', 'Zm9vYmFy'],
])('“%s” is %s', (text, written) => {
  expect(inBase64(bytesOf(text))).toBe(written);
  expect(inBase64Url(bytesOf(text))).toBe(written.replace(/=/g, ''));
});

it('writes addresses without what they may not have, and more than one call can take', () => {
  expect(inBase64Url(new Uint8Array([0xfb, 0xff, 0xfe]))).toBe('-__-');
  const many = new Uint8Array(200_000).fill(7);
  expect(inBase64(many)).toBe('BwcH'.repeat(66_666) + 'Bwc=');
});
