import type { Echo } from '@dorvel/core/echo';
import type { GistSentence } from '@dorvel/core/gist';
import type { Subject } from '@dorvel/core/look-back';
import type { Related } from '@dorvel/core/nearness';
import type { Closeness } from '@dorvel/core/relate';
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import { useAccount } from '@/device/store/account';
import type { EchoQuestion, KnownSentence, PassageOf, Relating } from './relating';

let worker: Remote<Relating> | undefined;

/** The worker that relates texts, started when it is first needed. */
function relating(): Remote<Relating> {
  worker ??= wrap<Relating>(new Worker('/workers/relate.js', { type: 'module' }));
  return worker;
}

/**
 * An answer of the worker's: undefined while it is worked out.
 *
 * @param otherwise the answer when there is nothing to ask, or when it could not be worked out
 */
function useAnswer<Answer>(
  question: string | null,
  otherwise: Answer,
  ask: (worker: Remote<Relating>, accountId: string) => Promise<Answer>,
): Answer | undefined {
  const accountId = useAccount((state) => state.account?.id);
  const [answer, setAnswer] = useState<{ question: string; answer: Answer }>();
  useEffect(() => {
    if (question === null || accountId === undefined) return undefined;
    let wanted = true;
    ask(relating(), accountId).then(
      (given) => wanted && setAnswer({ question, answer: given }),
      (error: unknown) => {
        // What is related is an extra: without it everything else goes on, and the failure is told where faults are.
        reportError(error);
        if (wanted) setAnswer({ question, answer: otherwise });
      },
    );
    return () => void (wanted = false);
  }, [question, accountId]); // eslint-disable-line react-hooks/exhaustive-deps -- the question says all that `ask` depends on
  if (question === null) return otherwise;
  return answer?.question === question ? answer.answer : undefined;
}

/** The items of this device's library nearest to one. @param copyId of its text: another text is another question */
export function useRelated(itemId: string, copyId: string, most: number): Related[] | undefined {
  return useAnswer(`${itemId} ${copyId}`, [], (ask, accountId) => ask.related(accountId, itemId, most));
}

const NO_TAGS: string[] = [];

/** Those of some tags that an item's text makes much of; undefined while that is worked out. */
export function useNamedTags(
  itemId: string,
  copyId: string,
  language: string | null,
  tags: readonly string[],
): string[] | undefined {
  const question = tags.length === 0 ? null : `${itemId} ${copyId} ${tags.join(' ')}`;
  return useAnswer(question, NO_TAGS, (ask, accountId) => ask.namedTags(accountId, itemId, language, [...tags]));
}

/** How close some items are to some others. */
export function useCloseness(candidates: readonly string[], others: readonly string[]): Closeness[] | undefined {
  const question =
    candidates.length === 0 || others.length === 0 ? null : `${candidates.join(' ')} | ${others.join(' ')}`;
  return useAnswer(question, [], (ask, accountId) => ask.closeness(accountId, [...candidates], [...others]));
}

/** The sentences that carry a text; undefined while they are worked out. @param here whether the text is on this device */
export function useGist(copyId: string | null, here: boolean): GistSentence[] | undefined {
  const question = copyId === null || !here ? null : `gist ${copyId}`;
  return useAnswer(question, [], (ask, accountId) => ask.gist(accountId, copyId ?? ''));
}

/** One list, so that those who compare answers see that nothing changed. */
const NO_ECHOES: readonly Echo[] = [];

/**
 * The names and terms of an open text that other items speak of; undefined while they are looked for.
 *
 * @param texts how many are on this device: with others, other echoes are found
 */
export function useEchoes(question: EchoQuestion | null, texts: number): readonly Echo[] | undefined {
  const asked = question && question.density !== 'none' ? question : null;
  return useAnswer(asked && `${texts} ${JSON.stringify(asked)}`, NO_ECHOES, (ask, accountId) =>
    asked ? ask.echoes(accountId, asked) : Promise.resolve(NO_ECHOES),
  );
}

/** One list, as above. */
const NONE_KNOWN: readonly KnownSentence[] = [];

/**
 * The sentences of an open text that say what the reader has met in other items; undefined while they are looked for.
 *
 * @param copyId null when nothing is asked
 * @param texts how many are on this device: with others, more may be known
 */
export function useKnown(itemId: string, copyId: string | null, texts: number): readonly KnownSentence[] | undefined {
  return useAnswer(copyId && `known ${itemId} ${copyId} ${texts}`, NONE_KNOWN, (ask, accountId) =>
    ask.known(accountId, itemId, copyId ?? ''),
  );
}

/** The same, asked once, for what is heard without being opened. */
export async function knownOf(accountId: string, itemId: string, copyId: string): Promise<readonly KnownSentence[]> {
  return relating().known(accountId, itemId, copyId);
}

/** One list, as above. */
const NO_PARTS: readonly { id: string; parts: readonly number[] }[] = [];

/**
 * Where parts of some items begin, as fractions of their words; undefined while it is looked up.
 *
 * @param texts how many are on this device: with others, more can be told
 */
export function usePartsOf(
  itemIds: readonly string[],
  texts: number,
): readonly { id: string; parts: readonly number[] }[] | undefined {
  const question = itemIds.length === 0 ? null : `parts ${texts} ${itemIds.join(' ')}`;
  return useAnswer(question, NO_PARTS, (ask, accountId) => ask.parts(accountId, [...itemIds]));
}

/** One list, as above. */
const NO_SUBJECTS: readonly Subject[] = [];

/**
 * What some items speak of together, beside some of before; undefined while it is worked out.
 *
 * @param texts how many are on this device: with others, more is known of them
 */
export function useSubjects(
  now: readonly string[],
  before: readonly string[],
  texts: number,
): readonly Subject[] | undefined {
  const question = now.length === 0 ? null : `subjects ${texts} ${now.join(' ')} | ${before.join(' ')}`;
  return useAnswer(question, NO_SUBJECTS, (ask, accountId) => ask.subjects(accountId, [...now], [...before]));
}

/** Where items speak of a term; undefined while it is looked up. */
export function usePassages(key: string, itemIds: readonly string[]): PassageOf[] | undefined {
  return useAnswer<PassageOf[]>(`${key} | ${itemIds.join(' ')}`, [], (ask, accountId) =>
    ask.passages(accountId, key, [...itemIds]),
  );
}
