import { and, gt, inArray } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/open';
import { accounts, sessions } from '../db/schema';
import type { ChangeBell } from './bell';

const LOOK_MS = 700;
const AT_ONCE = 500;

/**
 * Rings for what other processes changed in a database that they share: an account's sequence number goes up with each change, and
 * a session that they ended is there no more. Only those are looked at whose devices listen here.
 *
 * @returns ends the looking
 */
export function hearElsewhere(database: Database, bell: ChangeBell, log: Logger): () => void {
  if (!database.isShared) return () => undefined;
  let known = new Map<string, number>();
  let open = new Set<string>();
  let timer: NodeJS.Timeout | undefined;
  let isOver = false;
  const look = async () => {
    const listened = bell.heard();
    const seen = new Map<string, number>();
    const stillOpen = new Set<string>();
    for (let at = 0; at < listened.length; at += AT_ONCE) {
      const some = listened.slice(at, at + AT_ONCE);
      const rows = await database.read
        .select({ id: accounts.id, sequence: accounts.sequence })
        .from(accounts)
        .where(inArray(accounts.id, some));
      for (const { id, sequence } of rows) seen.set(id, sequence);
      const good = await database.read
        .select({ id: sessions.id })
        .from(sessions)
        .where(and(inArray(sessions.id, some), gt(sessions.expiresAt, Date.now())));
      for (const { id } of good) stillOpen.add(id);
    }
    for (const [id, sequence] of seen) if (sequence !== (known.get(id) ?? sequence)) bell.ring(id);
    for (const id of open) if (!stillOpen.has(id)) bell.ring(id);
    known = seen;
    open = stillOpen;
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
