import { GivenUp, type Workshop } from '../apart/workshop';
import type { Input, Taken } from './inputs';

/**
 * Where a text is taken apart. Most are quick; those that are large or turn out to be slow go to the long lane, one at a
 * time, so that they hold up none but their like.
 */
export type Lane = 'quick' | 'long';

/** `long`: it is not for the quick lane, and is to come again to the long one. */
export type Extracted = Taken | { ok: false; long: true };

/** Turns what was fetched or given into clean text, outside the server's process. */
export interface Extractor {
  extract(input: Input, lane: Lane): Promise<Extracted>;
  /** The words by which a text is found, with spaces between them; null where that was too much to do. */
  terms(text: string, language: string | null, lane: Lane): Promise<string | null>;
}

const LIMIT_MS: Readonly<Record<Lane, number>> = { quick: 3000, long: 30_000 };
/** An honest page of this size takes a second on a slow machine. */
const QUICK_BYTES = 1_000_000;
/** Formats that are packed: their size says little of what is in them. */
const PACKED = /^(?:%PDF-|PK\x03\x04)/;

/** An extractor over two workshops with the tasks of apart/texts.child.ts. */
export function workshopExtractor(workshops: Readonly<Record<Lane, Workshop>>): Extractor {
  return {
    async extract(input, lane) {
      const start = Buffer.from(input.body.subarray(0, 1024)).toString('latin1').trimStart();
      if (lane === 'quick' && (input.body.length > QUICK_BYTES || PACKED.test(start)))
        return { ok: false, long: true };
      try {
        return (await workshops[lane].run('extract', input, LIMIT_MS[lane])) as Taken;
      } catch (error) {
        if (!(error instanceof GivenUp)) return { ok: false, says: 'The page could not be taken apart.' };
        if (lane === 'quick' && error.why !== 'ended') return { ok: false, long: true };
        return {
          ok: false,
          says:
            error.why === 'time'
              ? `The page could not be taken apart within ${LIMIT_MS.long / 1000} seconds.`
              : error.why === 'memory'
                ? 'The page wants more memory to be taken apart than can be given to it.'
                : 'The page could not be taken apart.',
        };
      }
    },

    async terms(text, language, lane) {
      try {
        return (await workshops[lane].run('terms', { text, language }, LIMIT_MS.long)) as string;
      } catch (error) {
        if (!(error instanceof GivenUp)) throw error;
        // It is kept and can be read; only its words are not found.
        return null;
      }
    },
  };
}
