import { z } from 'zod';
import { Account } from './account';
import { Excerpt } from './excerpt';
import { Highlight } from './highlight';
import { Id, MAX_ADDRESS_LENGTH } from './ids';
import { Item, Stage } from './item';
import { Note } from './note';
import { Rank } from './rank';
import { Silenced } from './silence';
import { TagName } from './tag';

/** GET /api/extension/account: whose library the extension saves to. */
export const ExtensionAccount = z.object({ account: Account });

/** GET /api/extension/page?address= */
export const PageAsked = z.object({ address: z.string().trim().min(1).max(MAX_ADDRESS_LENGTH) });

/** An item of the reader's own library, with what it has in common with the one asked about. */
const RelatedItem = z.object({ item: Item, shared: z.array(z.string()) });

/** GET /api/extension/page and GET /api/extension/items/:id: what the library knows of a page. */
export const KnownPage = z.object({
  /** Null when it is not in the library. */
  item: Item.nullable(),
  /** Nearest first. */
  related: z.array(RelatedItem),
  /** From the reader's own use, each with its reason in words. */
  suggestedTags: z.array(z.object({ tag: TagName, reason: z.string() })),
  /** The tags that the reader used last, the latest first. */
  lastTags: z.array(TagName),
  /** A rank below all that is in the Queue. */
  queueEnd: z.number(),
  /** The dossiers that were worked on last, each with the rank that its last thing has. */
  dossiers: z.array(z.object({ id: Id, title: z.string(), end: Rank.nullable() })).default([]),
  /** What is marked in it. */
  highlights: z.array(Highlight),
  /** What the reader wrote on it, in the note that it has a field for. */
  note: Note.nullable(),
});
export type KnownPage = z.infer<typeof KnownPage>;

/**
 * GET /api/extension/marked: addresses of pages, in canonical form, in which something is marked. With these at hand
 * an extension need not tell the server of every page that is opened.
 */
export const MarkedAddresses = z.object({ addresses: z.array(z.string()) });

/** GET /api/extension/echoes?after= */
export const EchoesAsked = z.object({ after: z.coerce.number().int().nonnegative().default(0) });

/**
 * GET /api/extension/echoes: what the library's items speak of, so that an extension can say on any page what of it stands
 * in the library too, without asking anybody.
 */
export const EchoesAnswer = z.object({
  /** Of another epoch nothing holds any more: the library was brought back from a backup. */
  epoch: z.string(),
  /** To be asked after next time. */
  upTo: z.number().int().nonnegative(),
  /** There is more at once. */
  hasMore: z.boolean(),
  /** Items that are not there any more, or have no text. */
  gone: z.array(Id),
  items: z.array(
    z.object({
      id: Id,
      title: z.string(),
      /** BCP 47 tag; null when not known, or not told by an earlier server. */
      language: z.string().nullable().default(null),
      source: z.string(),
      /** In canonical form. */
      address: z.string(),
      stage: Stage,
      minutes: z.number().nonnegative(),
      excerpts: z.array(Excerpt),
    }),
  ),
  /** All that is silenced. */
  silenced: z.array(Silenced),
});
export type EchoesAnswer = z.infer<typeof EchoesAnswer>;

/** GET /api/extension/find?words= */
export const WordsAsked = z.object({ words: z.string().trim().min(1).max(1000) });
/** What the library has on something that the reader looks for on the web. */
export const FoundElsewhere = z.object({
  count: z.number().int().nonnegative(),
  /** The best of them. */
  items: z.array(Item),
});
export type FoundElsewhere = z.infer<typeof FoundElsewhere>;

/**
 * What joins an extension to an account, as one line to be copied: the address of the server, and behind the hash a
 * token's secret. `https://library.example/pair#9f…`
 */
export function pairingCode(origin: string, secret: string): string {
  return `${origin}/pair#${secret}`;
}

/** Reads a pairing code. @returns null when it is not one */
export function readPairingCode(written: string): { origin: string; secret: string } | null {
  const code = written.trim();
  if (!URL.canParse(code)) return null;
  const { origin, protocol, pathname, hash } = new URL(code);
  if (!/^https?:$/.test(protocol) || pathname !== '/pair' || !/^#[\w-]{20,200}$/.test(hash)) return null;
  return { origin, secret: hash.slice(1) };
}
