import { ServerProblem, Unreachable } from '@dorvel/core/client';
import { NoPasskey } from '@/device/sync/passkeys';

/** What to tell of a request that failed. @throws what only a mistake of ours can have caused */
export function inWords(error: unknown): string {
  if (error instanceof Unreachable) return 'This needs a connection. Try again when there is one.';
  if (error instanceof ServerProblem) return error.detail;
  if (error instanceof NoPasskey) return error.message;
  throw error;
}
