import { inArray } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/open';
import { accounts } from '../db/schema';
import type { ChangeBell } from './bell';

const LOOK_MS = 700;
const AT_ONCE = 500;

/**
 * Rings for what other processes changed in a database that they share: an account's sequence number goes up with each change.
 * Only the accounts are looked at whose devices listen here.
 *
 * @returns ends the looking
 */
export function hearElsewhere(database: Database, bell: ChangeBell, log: Logger): () => void {
  if (!database.isShared) return () => undefined;
  let known = new Map<string, number>();
  let timer: NodeJS.Timeout | undefined;
  let isOver = false;
  const look = async () => {
    const listened = bell.heard();
    const seen = new Map<string, number>();
    for (let at = 0; at < listened.length; at += AT_ONCE) {
      const rows = await database.read
        .select({ id: accounts.id, sequence: accounts.sequence })
        .from(accounts)
        .where(inArray(accounts.id, listened.slice(at, at + AT_ONCE)));
      for (const { id, sequence } of rows) seen.set(id, sequence);
    }
    for (const [id, sequence] of seen) if (sequence !== (known.get(id) ?? sequence)) bell.ring(id);
    known = seen;
  };
  const again = () => {
    if (isOver) return;
    timer = setTimeout(() => {
      look()
        .catch((error: unknown) => log.error({ err: error }, 'changes from elsewhere are not heard'))
        .finally(again);
    }, LOOK_MS);
  };
  again();
  return () => {
    isOver = true;
    clearTimeout(timer);
  };
}
