import { z } from 'zod';

/** What is said of a file while it is made, a line of JSON each; after the one that says which it is, its bytes follow. */
const FileLine = z.union([
  z.object({ done: z.int().nonnegative(), of: z.int().positive() }),
  z.object({ name: z.string(), type: z.string(), bytes: z.int().nonnegative() }),
]);
export type FileLine = z.infer<typeof FileLine>;

const LINE_END = 10;
/** Longer than any name of a file. */
const MAX_LINE = 4096;

/** A line to be sent. */
export const fileLine = (line: FileLine): string => `${JSON.stringify(line)}\n`;

/**
 * Reads a file of which it is told how far it is.
 *
 * @param step told of each line about how far it is
 * @throws Error when what comes is something else, or breaks off
 */
export async function readToldFile(
  sent: AsyncIterable<Uint8Array<ArrayBuffer>>,
  step: (done: number, of: number) => void,
): Promise<{ name: string; content: Blob }> {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let begun = new Uint8Array(0);
  let file: Extract<FileLine, { name: string }> | null = null;
  for await (const chunk of sent) {
    if (file) {
      parts.push(chunk);
      continue;
    }
    begun = joined(begun, chunk);
    for (let end = begun.indexOf(LINE_END); end >= 0 && !file; end = begun.indexOf(LINE_END)) {
      const line = FileLine.parse(JSON.parse(new TextDecoder().decode(begun.subarray(0, end))));
      begun = begun.slice(end + 1);
      if ('name' in line) file = line;
      else step(line.done, line.of);
    }
    if (file) parts.push(begun);
    else if (begun.length > MAX_LINE) throw new Error('something else than a file came');
  }
  const content = new Blob(parts, file ? { type: file.type } : {});
  if (file?.bytes !== content.size) throw new Error('the file broke off');
  return { name: file.name, content };
}

function joined(a: Uint8Array<ArrayBuffer>, b: Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  const both = new Uint8Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}
