import type { EchoesAnswer, Item } from '@dorvel/core/model';
import { silenceKind } from '@dorvel/core/records';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { and, asc, eq, gt } from 'drizzle-orm';
import type { Database } from '../db/open';
import { items } from '../db/schema';
import type { ProfileStore } from './profiles';
import { recordsIn } from './records';
import { copyRelatedBy } from './related';
import { readStoredItem } from './stored';

/** So many items are told at once. */
const A_PAGE = 200;

/** What an account's items speak of, for those who keep it where the texts are not; see EchoesAnswer. */
export function echoSource(database: Database, accountId: string, profiles: ProfileStore) {
  async function told(item: Item): Promise<EchoesAnswer['items'][number] | null> {
    const copyId = copyRelatedBy(item);
    const profiled = copyId === null ? null : await profiles.of(copyId);
    if (!profiled || profiled.excerpts.length === 0) return null;
    return {
      id: item.id,
      title: titleOf(item),
      language: item.capture.page?.language ?? null,
      source: sourceOf(item),
      address: item.capture.addressKey,
      stage: item.choices.stage.value,
      minutes: item.capture.page?.minutes ?? 0,
      excerpts: profiled.excerpts,
    };
  }
  return {
    /** @param after the sequence up to which it is known */
    async after(after: number): Promise<Omit<EchoesAnswer, 'epoch'>> {
      const changed = await database.read
        .select({ sequence: items.sequence, id: items.id, record: items.record })
        .from(items)
        .where(and(eq(items.accountId, accountId), gt(items.sequence, after)))
        .orderBy(asc(items.sequence))
        .limit(A_PAGE);
      const answer: Omit<EchoesAnswer, 'epoch'> = {
        upTo: changed.at(-1)?.sequence ?? after,
        hasMore: changed.length === A_PAGE,
        gone: [],
        items: [],
        silenced: (await recordsIn(database.read, accountId, silenceKind))
          .filter(({ choices, what }) => choices.silenced.value && what.kind !== 'first-steps')
          .map(({ what }) => what),
      };
      for (const { id, record } of changed) {
        const item = readStoredItem(record);
        const of = item && (await told(item));
        if (of) answer.items.push(of);
        else answer.gone.push(id);
      }
      return answer;
    },
  };
}
