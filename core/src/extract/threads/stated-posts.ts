import { isOfType, nameOf, type StatedThing, textValue, Thing } from '../metadata/linked-data';

export type PostKind = 'question' | 'accepted answer' | 'answer' | 'post';

/** What a page's JSON-LD says of the posts of its thread, the question or the first post first. */
export type StatedPosts = { kind: PostKind; who: string | null; text: string }[];

const MOST_POSTS = 200;

/**
 * The posts of a thread as a page states them in JSON-LD (schema.org 29: QAPage with one Question, DiscussionForumPosting
 * with its comments); null for a page that states none, or several questions.
 */
export function statedThread(things: readonly StatedThing[]): StatedPosts | null {
  const linked = things.filter(({ source }) => source === 'json-ld').map(({ thing }) => thing);
  const questions = linked.filter((thing) => isOfType(thing, /^Question$/));
  const [question] = questions;
  if (question && questions.length === 1)
    return posts([
      ['question', [question]],
      ['accepted answer', listOf(question.acceptedAnswer)],
      ['answer', listOf(question.suggestedAnswer)],
    ]);
  const first = linked.find((thing) => isOfType(thing, /DiscussionForumPosting$/));
  return first
    ? posts([
        ['post', [first]],
        ['post', listOf(first.comment)],
      ])
    : null;
}

function posts(said: [PostKind, Thing[]][]): StatedPosts | null {
  const all = said.flatMap(([kind, things]) =>
    things.flatMap((thing) => {
      const text = textValue(thing.text) ?? textValue(thing.articleBody);
      return text === null ? [] : [{ kind, who: nameOf(thing.author), text: text.replace(/<[^>]{0,300}>/g, '') }];
    }),
  );
  return all.length > 1 ? all.slice(0, MOST_POSTS) : null;
}

function listOf(value: unknown): Thing[] {
  return [value].flat().flatMap((each) => {
    const parsed = Thing.safeParse(each);
    return parsed.success ? [parsed.data] : [];
  });
}
