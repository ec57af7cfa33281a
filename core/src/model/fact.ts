import { z } from 'zod';

/** What a fact is about: the schema.org types that people compare. */
export const FactSubject = z.enum(['product', 'recipe', 'event', 'book', 'video', 'page']);
export type FactSubject = z.infer<typeof FactSubject>;

export const FactValue = z.discriminatedUnion('type', [
  z.object({ type: z.literal('text'), text: z.string().min(1).max(400) }),
  z.object({ type: z.literal('number'), number: z.number(), outOf: z.number().nullable() }),
  /** `currency` is an ISO 4217 code where the page states one. */
  z.object({ type: z.literal('money'), amount: z.number(), currency: z.string().max(10).nullable() }),
  /** ISO 8601, with its zone where the page states one. */
  z.object({ type: z.literal('date'), date: z.string().max(40) }),
  z.object({ type: z.literal('duration'), seconds: z.number().nonnegative() }),
]);
export type FactValue = z.infer<typeof FactValue>;

/** One thing that a page states in its data, as a key and a typed value with its source. */
export const Fact = z.object({
  about: FactSubject,
  /** The name of the thing that it is said of. */
  of: z.string().max(300).nullable(),
  /** The schema.org property, with a dot where it is of a part: `offers.price`. */
  key: z.string().max(60),
  value: FactValue,
  source: z.enum(['json-ld', 'microdata', 'rdfa', 'meta', 'text']),
});
export type Fact = z.infer<typeof Fact>;

export const MAX_FACTS = 60;
