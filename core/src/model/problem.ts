import { z } from 'zod';

/** An error answer: problem details for HTTP APIs, RFC 9457. */
export const Problem = z.object({
  /** What kind of problem, as a relative reference that never changes. */
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  /** What happened, what was kept, what to do: shown to the reader as it is. */
  detail: z.string(),
});
export type Problem = z.infer<typeof Problem>;
