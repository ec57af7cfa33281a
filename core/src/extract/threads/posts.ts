import {
  attribute,
  descendants,
  elementsIn,
  findElement,
  isElement,
  isLink,
  label,
  labelApart,
  type PageElement,
  spacedText,
  startOfText,
  textContent,
  tidy,
} from '../page/page-tree';
import type { PostKind, StatedPosts } from './stated-posts';

/** What one person says in a thread. */
export interface Post {
  kind: PostKind;
  /** As the page shows it; null where it shows nobody. */
  who: string | null;
  body: PageElement;
}

const MOST_POSTS = 500;
/** Fewer posts are a text with a remark below it. */
const LEAST_POSTS = 3;
/** So much of all that a page says must be said in the posts, by their shape alone. */
const MOST_OF_PAGE = 0.6;
/** And so much where the page itself says that they are posts: else one question below a long text would stand for it. */
const SOME_OF_PAGE = 0.25;

/**
 * The posts of a page that is a thread: one question with its answers, or what several people say in turn. By what the
 * page's data say (schema.org 29: QAPage, DiscussionForumPosting; as microdata or JSON-LD), or else by their shape: blocks
 * of one make, each with somebody's name and a body, that hold most of what the page says. An article with comments
 * below it is none, nor is a list of questions with one answer each.
 *
 * @returns null for any other page
 */
export function findPosts(body: PageElement, stated: StatedPosts | null): Post[] | null {
  const elements = descendants(body);
  // Few pages are threads: the length of all that a page says is only asked for where posts were found.
  let whole: number | undefined;
  const hold = (posts: Post[] | null, share: number) => {
    if (!posts) return null;
    whole ??= lengthOf(body);
    return posts.reduce((sum, post) => sum + lengthOf(post.body), 0) > share * whole ? posts : null;
  };
  return (
    hold(markedPosts(elements), SOME_OF_PAGE) ??
    hold(stated && statedPosts(elements, stated), SOME_OF_PAGE) ??
    shapedPosts(elements, (posts) => hold(posts, MOST_OF_PAGE) !== null)
  );
}

const lengthOf = (element: PageElement) => tidy(spacedText(element)).length;

const typeOf = (element: PageElement) =>
  attribute(element, 'itemscope') === undefined
    ? null
    : (/([A-Za-z]+)\s*$/.exec((attribute(element, 'itemtype') ?? '').slice(-100))?.[1] ?? null);
const hasProperty = (element: PageElement, ...names: string[]) =>
  (attribute(element, 'itemprop') ?? '').split(/\s+/).some((name) => names.includes(name));
const isInside = (element: PageElement, wanted: (around: PageElement) => boolean) => {
  for (let at = element.parentNode; at && isElement(at); at = at.parentNode) if (wanted(at)) return true;
  return false;
};

/** By microdata. */
function markedPosts(elements: readonly PageElement[]): Post[] | null {
  const questions = elements.filter((element) => typeOf(element) === 'Question');
  const [question] = questions;
  if (question && questions.length === 1) {
    const answers = elements.filter((element) => typeOf(element) === 'Answer').slice(0, MOST_POSTS);
    const asked = markedPost(question, 'question');
    const answered = answers.flatMap(
      (each) => markedPost(each, hasProperty(each, 'acceptedAnswer') ? 'accepted answer' : 'answer') ?? [],
    );
    return asked && answered.length > 0 ? [asked, ...answered] : null;
  }
  if (!elements.some((element) => typeOf(element) === 'DiscussionForumPosting')) return null;
  const posts = elements
    .filter((element) => /^(?:DiscussionForumPosting|Comment)$/.test(typeOf(element) ?? ''))
    .slice(0, MOST_POSTS)
    .flatMap((element) => markedPost(element, 'post') ?? []);
  return posts.length > 1 ? posts : null;
}

function markedPost(element: PageElement, kind: PostKind): Post | null {
  const isOwn = (inner: PageElement) =>
    !isInside(
      inner,
      (around) => around !== element && typeOf(around) !== null && isInside(around, (up) => up === element),
    );
  const body = findElement(element, (inner) => hasProperty(inner, 'text', 'articleBody') && isOwn(inner));
  return body ? { kind, who: whoIn(element, body, isOwn), body } : null;
}

/** So many letters tell the beginning of a text from any other's. */
const KEY = 48;
const letters = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

/** By what the page states in JSON-LD: each text is looked for in what it shows. */
function statedPosts(elements: readonly PageElement[], stated: StatedPosts): Post[] | null {
  const keys = stated.map(({ text }) => letters(text.slice(0, 4 * KEY)).slice(0, KEY));
  const found = new Map<number, PageElement>();
  for (const element of elements) {
    if (/^(?:script|style|template|textarea)$/.test(element.tagName)) continue;
    const begins = letters(startOfText(element, KEY * 2));
    if (begins.length < KEY / 2) continue;
    for (const [at, key] of keys.entries()) {
      if (found.has(at) || key.length < KEY / 2 || !begins.startsWith(key)) continue;
      // The outermost that begins with it and goes on no further than it does.
      const length = (stated[at]?.text.length ?? 0) * 1.5 + 200;
      if (startOfText(element, length).length <= length) found.set(at, element);
    }
  }
  const posts = stated.flatMap(({ kind, who }, at) => {
    const body = found.get(at);
    return body ? [{ kind, who, body }] : [];
  });
  return found.has(0) && posts.length > 1 && 2 * posts.length >= stated.length ? posts : null;
}

const POST = /^(?:[a-z]+[-_])?(?:post|message|msg|reply|answer|topic|posting|bit|entry)(?:[-_a-z]*)$/;
const COMMENTS =
  /(?:^|[\s_-])(?:comments?|commentlist|kommentare?|comentarios?|commentaires?|disqus|responses?)(?:$|[\s_-])/;
const BODY =
  /(?:^|[\s_-])(?:content|body|text|message|cooked|post[-_]?(?:text|body|content)|entry|markdown|prose)(?:$|[\s_-])/;
/** A body holds so much of what its post says. */
const MOST_OF_POST = 0.5;

/** By their shape. */
function shapedPosts(elements: readonly PageElement[], areMost: (posts: Post[]) => boolean): Post[] | null {
  const groups = new Map<string, Set<PageElement>>();
  for (const element of elements) {
    const make = makeOf(element);
    if (make === null) continue;
    const group = groups.get(make) ?? new Set();
    groups.set(make, group);
    if (group.size <= MOST_POSTS && !isInside(element, (around) => group.has(around))) group.add(element);
  }
  for (const group of groups.values()) {
    if (group.size < LEAST_POSTS || group.size > MOST_POSTS) continue;
    const blocks = [...group];
    if (blocks.some((each) => isInside(each, (around) => COMMENTS.test(labelApart(around))))) continue;
    const posts = blocks.flatMap((each) => shapedPost(each) ?? []);
    const people = new Set(posts.map(({ who }) => who));
    if (posts.length === blocks.length && people.size > 1 && areMost(posts)) return posts;
  }
  return null;
}

/** What the blocks of a group have in common: their tag, and the first of their names without numbers. */
function makeOf(element: PageElement): string | null {
  if (!/^(?:div|li|article|section|table|tr)$/.test(element.tagName)) return null;
  const name = label(element)
    .split(/\s+/)
    .map((word) => word.replace(/[-_]*\d+$/, ''))
    .find((word) => POST.test(word));
  return name === undefined ? null : `${element.tagName} ${name}`;
}

function shapedPost(element: PageElement): Post | null {
  const all = lengthOf(element);
  const inner = descendants(element);
  // A list of articles has a linked headline in each of its blocks.
  if (inner.some((each) => /^h[1-4]$/.test(each.tagName) && findElement(each, leadsToText))) return null;
  const bodies = inner.filter((each) => BODY.test(labelApart(each)) && lengthOf(each) > MOST_OF_POST * all);
  const body = bodies.at(-1);
  const who = body ? whoIn(element, body) : null;
  return body && who !== null ? { kind: 'post', who, body } : null;
}

const PERSON =
  /(?:^|[\s_-])(?:author|username|user[-_]?name|user|poster|member|nick(?:name)?|asker|answerer|profile|byline|who)(?:$|[\s_-])/;
const PERSONAL = /\/(?:u|user|users|member|members|profile|profiles|people|author)[/=.?-]/i;
const BEFORE_A_NAME = /^(?:(?:asked|answered|posted|written|by|from|author|re)\b[\s:]*)+/i;
const LONGEST_NAME = 60;

const leadsToText = (element: PageElement) => isLink(element) && !PERSONAL.test(attribute(element, 'href') ?? '');

/** Who wrote a post, as its block says outside its body. */
function whoIn(block: PageElement, body: PageElement, isOwn = (_element: PageElement) => true): string | null {
  const outside = descendants(block).filter(
    (each) => each !== body && isOwn(each) && !isInside(each, (up) => up === body),
  );
  const candidates = [
    ...outside.filter((each) => hasProperty(each, 'author')),
    ...outside.filter((each) => each.tagName === 'a' && PERSONAL.test(attribute(each, 'href') ?? '')),
    ...outside.filter((each) => PERSON.test(labelApart(each)) && elementsIn(each).length <= 4),
    ...outside.filter((each) => /^h[3-6]$/.test(each.tagName)),
  ];
  for (const candidate of candidates) {
    const named = findElement(candidate, (each) => hasProperty(each, 'name')) ?? candidate;
    if (startOfText(named, 2 * LONGEST_NAME).length > 2 * LONGEST_NAME) continue;
    const stated = attribute(named, 'content');
    const name = tidy(stated ?? textContent(named)).replace(BEFORE_A_NAME, '');
    if (/\p{L}/u.test(name) && name.length <= LONGEST_NAME) return name;
  }
  return null;
}
