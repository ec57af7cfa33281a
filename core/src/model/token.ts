import { z } from 'zod';
import { Id, Instant } from './ids';

/**
 * What a token lets its holder do: `save` puts pages into the library, and reads nothing of it; `extension` saves,
 * changes what is saved, and reads what the library has on a page or on a question.
 */
export const TokenScope = z.enum(['save', 'extension']);
export type TokenScope = z.infer<typeof TokenScope>;

/** A token as its owner sees it in the list; the secret itself is shown once, when it is made. */
export const Token = z.object({
  id: Id,
  /** Where it is used, in the owner's words. */
  name: z.string().trim().min(1, 'token-without-name').max(100),
  scope: TokenScope,
  madeAt: Instant,
  lastUsedAt: Instant.nullable(),
});
export type Token = z.infer<typeof Token>;

/** GET /api/tokens */
export const TokenList = z.object({ tokens: z.array(Token) });
/** POST /api/tokens */
export const NewToken = Token.pick({ name: true, scope: true });
export const MadeToken = z.object({ token: Token, secret: z.string() });
/** DELETE /api/tokens/:id */
export const TokenParams = z.object({ id: Id });
