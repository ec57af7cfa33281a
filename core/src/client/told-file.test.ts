/** @jest-environment node */
import fc from 'fast-check';
import { fileLine, readToldFile } from './told-file';

const bytesOf = (text: string) => new TextEncoder().encode(text);
async function* cut(bytes: Uint8Array<ArrayBuffer>, sizes: readonly number[]) {
  for (let at = 0, n = 0; at < bytes.length; n++) {
    const size = sizes[n % sizes.length] ?? 1;
    yield bytes.slice(at, at + size);
    at += size;
    await Promise.resolve();
  }
}
const sent = (content: Uint8Array, bytes = content.length) =>
  new Uint8Array([
    ...bytesOf(fileLine({ done: 1, of: 2 }) + fileLine({ done: 2, of: 2 })),
    ...bytesOf(fileLine({ name: 'Café.epub', type: 'application/epub+zip', bytes })),
    ...content,
  ]);

it('reads a file with what was said of it before, however it is cut on the way', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.uint8Array({ maxLength: 200 }),
      fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 1, maxLength: 5 }),
      async (content, sizes) => {
        const steps: string[] = [];
        const file = await readToldFile(cut(sent(content), sizes), (done, of) => steps.push(`${done}/${of}`));
        expect(steps).toEqual(['1/2', '2/2']);
        expect([file.name, file.content.type]).toEqual(['Café.epub', 'application/epub+zip']);
        expect(new Uint8Array(await file.content.arrayBuffer())).toEqual(new Uint8Array(content));
      },
    ),
  );
});

it.each([
  ['a file that breaks off', sent(bytesOf('half'), 8)],
  ['nothing but how far it is', bytesOf(fileLine({ done: 1, of: 2 }))],
  ['a page of somebody else', bytesOf('<!doctype html>\n<title>Welcome to the train</title>\n')],
  ['a line without an end', bytesOf('x'.repeat(9000))],
])('does not take %s for a file', async (_what, bytes) => {
  await expect(readToldFile(cut(bytes, [64]), () => undefined)).rejects.toThrow();
});
