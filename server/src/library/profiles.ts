import { PROFILE_VERSION } from '@dorvel/core/terms';
import { and, eq, sql } from 'drizzle-orm';
import type { Database } from '../db/open';
import { copies, profiles } from '../db/schema';
import { Profiled, type Profiler } from './profiler';

/** Profiles of an account's copies: made when they are first asked for, and kept. */
export interface ProfileStore {
  /** @returns null when there is no such copy */
  of(copyId: string): Promise<Profiled | null>;
}

export function profileStore(database: Database, accountId: string, profiler: Profiler): ProfileStore {
  return {
    async of(copyId) {
      const [known] = await database.read
        .select({ version: profiles.version, profile: profiles.profile, excerpts: profiles.excerpts })
        .from(profiles)
        .where(and(eq(profiles.accountId, accountId), eq(profiles.copyId, copyId)));
      const kept = known?.version === PROFILE_VERSION && Profiled.safeParse(known).data;
      if (kept) return kept;
      // As text: a long copy takes long to parse, which is the profiler's to do.
      const [row] = await database.read
        .select({ record: sql<string>`${copies.record}` })
        .from(copies)
        .where(and(eq(copies.accountId, accountId), eq(copies.id, copyId)));
      if (!row) return null;
      const profiled = await profiler.profile(row.record);
      const made = { accountId, copyId, version: PROFILE_VERSION, ...profiled };
      await database.write((tx) =>
        tx
          .insert(profiles)
          .values(made)
          .onConflictDoUpdate({ target: [profiles.accountId, profiles.copyId], set: made }),
      );
      return profiled;
    },
  };
}
