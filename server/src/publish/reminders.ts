import { randomBytes } from 'node:crypto';
import { TZDate } from '@date-fns/tz';
import { dailyLetter, type Letter } from '@dorvel/core/formats';
import { dayInWords } from '@dorvel/core/wording';
import { and, eq, isNotNull, isNull, ne, or } from 'drizzle-orm';
import type { Database } from '../db/open';
import { accounts, reminders } from '../db/schema';
import { comeBackToday, dayIn, type Reader } from './come-back';

/**
 * Sends a letter.
 *
 * @param replyTo the person who sends it; nobody when it is sent by itself
 * @throws when it could not be handed on
 */
export type SendLetter = (to: string, letter: Letter, replyTo?: string) => Promise<void>;

interface LetterJob {
  /** For the runner's log. */
  id: string;
  accountId: string;
}

interface ReminderParts {
  /** Null where this server sends no mail. */
  send: SendLetter | null;
  readerOf(accountId: string, at: { zone: string; origin: string }): Reader;
  now(): number;
}

const RETRY_MS = 15 * 60 * 1000;
const LOOK_MS = 60_000;
/** 24 bytes: 192 random bits. */
const SECRET_BYTES = 24;

type Row = typeof reminders.$inferSelect;

/** Daily letters and private feeds: who wants them, and the sending. */
export function reminderShelf(database: Database, { send, readerOf, now }: ReminderParts) {
  const put = (accountId: string, at: { zone: string; origin: string }, set: Partial<Row>) =>
    database.write((tx) =>
      tx
        .insert(reminders)
        .values({ accountId, ...at, ...set })
        .onConflictDoUpdate({ target: reminders.accountId, set: { ...at, ...set } }),
    );
  const update = (accountId: string, set: Partial<Row>) =>
    database.write((tx) => tx.update(reminders).set(set).where(eq(reminders.accountId, accountId)));
  const isDue = ({ letterHour, zone, sentOn, retryAt }: Row): boolean =>
    letterHour !== null &&
    sentOn !== dayIn(zone)(now()) &&
    new TZDate(now(), zone).getHours() >= letterHour &&
    (retryAt ?? 0) <= now();
  const dueNow = async (): Promise<Row[]> =>
    send === null
      ? []
      : (await database.read.select().from(reminders).where(isNotNull(reminders.letterHour))).filter(isDue);

  return {
    canSend: send !== null,

    async of(accountId: string): Promise<Row | null> {
      const [row] = await database.read.select().from(reminders).where(eq(reminders.accountId, accountId));
      return row ?? null;
    },

    /** @param hour of the reader's day; null for no letter. The first comes when that hour comes next. */
    async setLetter(accountId: string, at: { zone: string; origin: string }, hour: number | null): Promise<void> {
      const isPast = hour !== null && new TZDate(now(), at.zone).getHours() >= hour;
      const sentOn = isPast ? dayIn(at.zone)(now()) : null;
      await put(accountId, at, { letterHour: hour, sentOn, retryAt: null });
    },

    /** Begins a feed, or gives the one there is another address. */
    async makeFeed(accountId: string, at: { zone: string; origin: string }): Promise<void> {
      await put(accountId, at, { secret: randomBytes(SECRET_BYTES).toString('base64url') });
    },

    endFeed: (accountId: string) => update(accountId, { secret: null }),

    /** Whose feed is at an address; null when there is none. */
    async at(secret: string): Promise<Reader | null> {
      const [row] = await database.read.select().from(reminders).where(eq(reminders.secret, secret));
      return row ? readerOf(row.accountId, row) : null;
    },

    /** Letters whose hour has come. Each is taken as sent, so that nobody gets two of a day; `putBack` takes that back. */
    async take(limit: number): Promise<LetterJob[]> {
      const taken: LetterJob[] = [];
      for (const { accountId, zone } of (await dueNow()).slice(0, limit)) {
        const sentOn = dayIn(zone)(now());
        // Another process may have looked at the same time: it is whose change comes first.
        const mine = await database.write((tx) =>
          tx
            .update(reminders)
            .set({ sentOn })
            .where(and(eq(reminders.accountId, accountId), or(isNull(reminders.sentOn), ne(reminders.sentOn, sentOn))))
            .returning({ accountId: reminders.accountId }),
        );
        if (mine.length > 0) taken.push({ id: `letter ${accountId} ${sentOn}`, accountId });
      }
      return taken;
    },

    async nextDue(): Promise<number | null> {
      if (send === null) return null;
      return (await dueNow()).length > 0 ? now() : now() + LOOK_MS;
    },

    /**
     * Sends a letter, if there is anything to be told.
     *
     * @returns whether one was sent
     * @throws what the mail server said when it did not take it
     */
    async sendLetter({ accountId }: Pick<LetterJob, 'accountId'>): Promise<boolean> {
      const [row] = await database.read
        .select({ reminder: reminders, mail: accounts.mail })
        .from(reminders)
        .innerJoin(accounts, eq(accounts.id, reminders.accountId))
        .where(eq(reminders.accountId, accountId));
      if (!row || !send) return false;
      const { zone, origin, letterHour } = row.reminder;
      if (letterHour === null) return false;
      const { parts, tasks } = await comeBackToday(database, readerOf(accountId, { zone, origin }));
      const isWorthIt = tasks.length > 0 || parts.some(({ entries }) => entries.length > 0);
      if (isWorthIt) {
        const today = dayIn(zone)(now());
        const day = dayInWords(today, today);
        await send(row.mail, dailyLetter({ day, parts, tasks, settings: `${origin}/you/reminders` }));
      }
      await update(accountId, { retryAt: null });
      return isWorthIt;
    },

    /** It could not be sent: again in a while. */
    putBack: ({ accountId }: LetterJob) => update(accountId, { sentOn: null, retryAt: now() + RETRY_MS }),
  };
}
export type Reminders = ReturnType<typeof reminderShelf>;
