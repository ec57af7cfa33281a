import { canonicalAddress } from '@dorvel/core/address';
import { anchorAt, passageAt } from '@dorvel/core/highlight';
import { type Item, type RecallGrade, spanOf } from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import type { Mutation } from '@dorvel/core/records';
import { plainText, wordStarts } from '@dorvel/core/text';
import { v5 as uuidv5, v7 as uuidv7 } from 'uuid';
import { DAY_BOOK_PAGES, DAY_BOOKS } from '../small-web/day-books';
import { feedOf } from '../small-web/feeds';
import { type Fate, fates, isReadIn } from './fates';
import { copyOf, DAY_MS, dayOf, everything, HOUR_MS, madeAt, push, settled, smallWebPort, until } from './reader';

/** Fills in the two years before: what she saved, read, heard, marked, kept and let go, week by week. */
export async function fillPast(started: number): Promise<void> {
  console.log(`… and with ${DAY_BOOK_PAGES} short ones of the two years before…`);
  const planned = fates().map((fate) => {
    const savedAt = started - (fate.page.daysAgo - fate.savedAfter) * DAY_MS + (Number(fate.page.slug) % 11) * HOUR_MS;
    const address = `http://${fate.page.host}.localhost:${smallWebPort}/d/${fate.page.slug}`;
    return { fate, savedAt, save: madeAt(savedAt).save({ address }) };
  });
  await push(planned.map(({ save }) => save));
  const items = await settled();
  const changes: Mutation[] = [];
  for (const { fate, savedAt, save } of planned) {
    const item = items.get(save.itemId);
    if (!item) throw new Error(`${save.address} is not in the library`);
    changes.push(...(await became(item, fate, savedAt)));
  }
  await push(changes);
  await followColumns();
}

/** Columns that she has looked through; the others wait, as feeds do. */
const LOOKED_THROUGH: readonly string[] = ['toolbench', 'nightwatch'];

/** The columns of these pages, with what has come in them: some hundreds of entries, more than a hundred of them to choose from. */
async function followColumns(): Promise<void> {
  const make = madeAt(Date.now());
  const followed = DAY_BOOKS.map((column) => {
    const url = `http://${column.host}.localhost:${smallWebPort}${feedOf(column)?.path ?? ''}`;
    return { feedId: uuidv5(canonicalAddress(url), uuidv5.URL), url, host: column.host };
  });
  await push(followed.map(({ feedId, url }) => make.follow(feedId, url)));
  await until('the columns were not looked at', async () => {
    const { feeds } = await everything();
    const checked = new Set(feeds.filter(({ state }) => state.checkedAt !== null).map(({ id }) => id));
    return followed.every(({ feedId }) => checked.has(feedId)) ? feeds : null;
  });
  await push(
    followed
      .filter(({ host }) => LOOKED_THROUGH.includes(host))
      .map(({ feedId }) => make.changeFeed(feedId, { seenUntil: Date.now() })),
  );
}

async function became(item: Item, fate: Fate, savedAt: number): Promise<Mutation[]> {
  const decidedAt = savedAt + 9 * HOUR_MS;
  const finishedAt = decidedAt + fate.finishedAfter * DAY_MS;
  const isRead = isReadIn(fate);
  const changes: Mutation[] = [madeAt(decidedAt).tag(item.id, { [fate.tag]: fate.tag })];
  if (fate.end !== 'inbox')
    changes.push(
      madeAt(isRead ? finishedAt : decidedAt).choose(item.id, {
        stage: fate.end,
        ...(fate.end === 'queue' ? { queueRank: 500 + Number(fate.page.slug) } : {}),
        ...(isRead ? { finishedAt } : {}),
        ...(fate.isBest ? { best: finishedAt } : {}),
      }),
    );
  if (isRead) changes.push(...(await readThrough(item, fate, finishedAt)));
  if (fate.note !== null) changes.push(madeAt(finishedAt).note(ownNote.ofItem(item.id), { text: fate.note }));
  return changes;
}

/** Read in one sitting, with what was marked in it and made of it. */
async function readThrough(item: Item, fate: Fate, finishedAt: number): Promise<Mutation[]> {
  const copy = await copyOf(item);
  const plain = plainText(copy.tree);
  const end = anchorAt(plain, wordStarts(plain.text, copy.language), plain.text.length);
  const make = madeAt(finishedAt);
  const minutes = item.capture.page?.minutes ?? 1;
  const seconds = Math.round(minutes * 60 * (fate.byEar ? 1.3 : 0.9 + (Number(fate.page.slug) % 5) / 10));
  const startedAt = finishedAt - seconds * 1000;
  const sentence = sentenceOf(plain.text, Number(fate.page.slug));
  const passage = passageAt(plain.text, sentence.start, sentence.end, copy.id);
  return [
    make.progress(item.id, { furthest: 1, position: end, heard: fate.byEar ? spanOf(0, 1) : [] }),
    make.activity({
      id: uuidv7(),
      itemId: item.id,
      startedAt,
      day: dayOf(startedAt),
      by: fate.byEar ? 'ears' : 'eyes',
      seconds,
      words: item.capture.page?.wordCount ?? 0,
    }),
    ...(fate.mark === null ? [] : [make.highlight(item.id, fate.mark, passage)]),
    ...(fate.isCard ? recalled(item, passage, finishedAt) : []),
  ];
}

/** A card of a sentence, asked for again and again until some months ago. */
function recalled(item: Item, passage: ReturnType<typeof passageAt>, madeOn: number): Mutation[] {
  const words = passage.exact.split(' ');
  const at = Math.floor(words.length / 2);
  const front = words.map((word, n) => (n === at ? `[[${word}]]` : word)).join(' ');
  const card = madeAt(madeOn).card({ itemId: item.id, highlightId: null, passage }, { front, back: '' });
  const answers: [after: number, grade: RecallGrade][] = [
    [1, 3],
    [4, 2],
    [9, 3],
    [25, 3],
    [60, 4],
  ];
  return [
    card,
    ...answers.flatMap(([after, grade]): Mutation[] => {
      const at = madeOn + after * DAY_MS;
      return at > Date.now()
        ? []
        : [madeAt(at).recall(card.cardId, { id: uuidv7(), gap: 1, at, grade, undone: false })];
    }),
  ];
}

/** One sentence of a text, where it stands. */
function sentenceOf(text: string, nth: number): { start: number; end: number } {
  const all = [...text.matchAll(/[^.!?\n]+[.!?]/g)].filter(([sentence]) => sentence.trim().length > 30);
  const match = all[nth % Math.max(1, all.length)];
  if (!match) return { start: 0, end: Math.min(text.length, 40) };
  const lead = match[0].length - match[0].trimStart().length;
  return { start: match.index + lead, end: match.index + match[0].length };
}
