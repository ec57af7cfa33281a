import { GivenUp, type Workshop } from '../apart/workshop';
import type { Lane } from '../jobs/queue';
import type { Input, Taken } from './inputs';

/** `long`: it is not for the quick lane, and is to come again to the long one. */
export type Extracted = Taken | { ok: false; long: true };

/** Turns what was fetched or given into clean text, outside the server's process. */
export interface Extractor {
  extract(input: Input, lane: Lane): Promise<Extracted>;
  /** The words by which a text is found, with spaces between them; null where that was too much to do. */
  terms(text: string, language: string | null, lane: Lane): Promise<string | null>;
}

/** An honest page of this size takes a second on a slow machine; so much is given for what is there in any case. */
const QUICK_BYTES = 1_000_000;
const MIN_LIMIT_MS = 1000;
const LIMIT_MS_PER_MEGABYTE = 2000;
/** Formats that are packed: their size says little of what is in them. */
const PACKED = ['%PDF-', 'PK\u0003\u0004'];

/**
 * An extractor over two workshops with the tasks of tasks/texts.child.ts.
 *
 * @param longLimitMs how long one text may take in the long lane
 */
export function workshopExtractor(workshops: Readonly<Record<Lane, Workshop>>, longLimitMs = 30_000): Extractor {
  const limitMs = (lane: Lane, size: number) =>
    lane === 'long' ? longLimitMs : MIN_LIMIT_MS + (size / 1e6) * LIMIT_MS_PER_MEGABYTE;
  return {
    async extract(input, lane) {
      const start = Buffer.from(input.body.subarray(0, 1024)).toString('latin1').trimStart();
      if (lane === 'quick' && (input.body.length > QUICK_BYTES || PACKED.some((sign) => start.startsWith(sign))))
        return { ok: false, long: true };
      try {
        return (await workshops[lane].run('extract', input, limitMs(lane, input.body.length))) as Taken;
      } catch (error) {
        if (!(error instanceof GivenUp)) return { ok: false, cause: { code: 'not-taken-apart' } };
        // It does not lie with the page: it is tried again later.
        if (error.why === 'ended') throw error;
        if (lane === 'quick') return { ok: false, long: true };
        return {
          ok: false,
          cause: error.why === 'time' ? { code: 'too-slow', seconds: longLimitMs / 1000 } : { code: 'too-much-memory' },
        };
      }
    },

    async terms(text, language, lane) {
      try {
        return (await workshops[lane].run('terms', { text, language }, limitMs(lane, text.length))) as string;
      } catch (error) {
        if (!(error instanceof GivenUp) || error.why === 'ended') throw error;
        // It is kept and can be read; only its words are not found.
        return null;
      }
    },
  };
}
