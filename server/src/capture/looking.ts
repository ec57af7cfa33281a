import { createHash } from 'node:crypto';
import { articleOfTree } from '@dorvel/core/extract';
import type { Copy, Item, PictureFacts, RecognisedPicture } from '@dorvel/core/model';
import { treeOfPictures } from '@dorvel/core/picture';
import { toString } from 'hast-util-to-string';
import { v7 as uuidv7 } from 'uuid';
import { GivenUp, type Workshop } from '../apart/workshop';
import type { FileStore } from '../files/files';
import type { Job } from '../jobs/queue';
import type { Library } from '../library/library';
import type { Extractor } from './extractor';
import type { Looked, ToLookAt } from './look-at';

export interface LookingTools {
  workshop: Workshop;
  files: FileStore;
  extractor: Extractor;
  /** For one picture. */
  limitMs: number;
  now(): number;
}

/** A picture that was being looked at each time that the server ended is taken to be what ended it. */
const MOST_TRIES = 3;

/**
 * Looks at the pictures of an item: what is in them becomes a part of what the item is, and the words that stand in them its
 * text. The copy without them goes, for it says nothing that the new one does not.
 */
export async function look(job: Job<'looking'>, library: Library, tools: LookingTools): Promise<void> {
  const item = await library.item(job.itemId);
  const page = item?.capture.page;
  const copy = page?.copyId ? await library.copy(page.copyId) : null;
  const waiting = page?.pictures.filter(({ seen }) => seen === null) ?? [];
  if (!item || !page || !copy || waiting.length === 0 || job.attempts > MOST_TRIES) return end(job, library, tools);
  const looked = new Map<string, Looked>();
  for (const picture of waiting) {
    const seen = await lookedAt(picture, page.language, tools);
    if (seen) looked.set(picture.hash, seen);
  }
  if (looked.size === 0) return end(job, library, tools);
  const recognised = page.pictures.map(({ hash }): RecognisedPicture => ({
    hash,
    words: looked.get(hash)?.words ?? copy.recognised?.find((each) => each.hash === hash)?.words ?? [],
  }));
  const tree = treeOfPictures(
    copy.tree,
    recognised.map(({ words }) => words),
  );
  const article = articleOfTree(tree, page.title);
  const isRead = recognised.some(({ words }) => words.length > 0);
  const made: Copy = {
    ...copy,
    id: uuidv7(),
    madeAt: tools.now(),
    language: copy.language ?? article.language,
    hash: createHash('sha256').update(JSON.stringify(article.tree)).digest('hex'),
    tree: article.tree,
    ...(isRead ? { recognised } : {}),
  };
  const terms = await tools.extractor.terms(article.text, made.language, 'long');
  await library.change(async (write) => {
    const now = await write.item(item.id);
    // Fetched again meanwhile: what was looked at is not what it has now, and its own turn comes.
    if (now?.capture.page?.copyId !== copy.id) return write.endJob(job.id, 'done', tools.now());
    await write.putCopy(made, terms);
    await write.put(withSeen(now, page.pictures, looked, made, article, write.sequence));
    await write.endJob(job.id, 'done', tools.now());
  });
}

function withSeen(
  item: Item,
  pictures: readonly PictureFacts[],
  looked: ReadonlyMap<string, Looked>,
  copy: Copy,
  { wordCount, minutes, excerpt }: Pick<ReturnType<typeof articleOfTree>, 'wordCount' | 'minutes' | 'excerpt'>,
  revision: number,
): Item {
  const { capture } = item;
  const page = capture.page;
  if (!page) return item;
  const note = { id: copy.id, madeAt: copy.madeAt, hash: copy.hash ?? '', wordCount };
  return {
    ...item,
    capture: {
      ...capture,
      revision,
      copies: capture.copies.map((each) => (each.id === page.copyId ? { ...note, origin: each.origin } : each)),
      page: {
        ...page,
        copyId: copy.id,
        title: isMadeUp(page.title) ? (firstLine(copy.tree) ?? page.title) : page.title,
        language: page.language ?? copy.language,
        wordCount,
        minutes,
        excerpt: excerpt ?? page.excerpt,
        pictures: pictures.map((each) => ({ ...each, seen: looked.get(each.hash)?.seen ?? each.seen })),
      },
    },
  };
}

/** What cameras and programs call their pictures says nothing of them. */
const isMadeUp = (title: string | null): boolean =>
  title === null ||
  /^(?:img|dsc|dscn|pxl|image|photo|picture|scan|screenshot|cut-out)?[\s\d_.()-]*(?:\.\w{3,4})?$/i.test(title);
const LONGEST_TITLE = 80;

/** The first line of the words in pictures, as a title. */
function firstLine(tree: Copy['tree']): string | null {
  const first = tree.children.find((block) => block.type === 'element' && /^(?:h3|p)$/.test(block.tagName));
  const words = first ? toString(first).trim() : '';
  if (words === '') return null;
  return words.length <= LONGEST_TITLE ? words : `${words.slice(0, words.lastIndexOf(' ', LONGEST_TITLE))} …`;
}

/** @returns null for a picture that takes more time or memory than it may have */
async function lookedAt(
  { large }: PictureFacts,
  language: string | null,
  { workshop, files, limitMs }: LookingTools,
): Promise<Looked | null> {
  const bytes = await files.read(large);
  if (!bytes) throw new Error('a picture that is to be looked at is missing');
  const input: ToLookAt = { bytes, language };
  try {
    return (await workshop.run('look-at', input, limitMs)) as Looked;
  } catch (error) {
    if (error instanceof GivenUp && error.why === 'ended') throw error;
    return null;
  }
}

function end(job: Job<'looking'>, library: Library, tools: LookingTools): Promise<void> {
  return library.change((write) => write.endJob(job.id, 'done', tools.now()));
}

/** After an error nobody foresaw: once more, later. */
export async function lookLater(job: Job<'looking'>, library: Library, tools: LookingTools): Promise<void> {
  if (job.attempts >= MOST_TRIES) return end(job, library, tools);
  await library.change((write) => write.postponeJob(job.id, tools.now() + 60_000 * job.attempts, tools.now()));
}
