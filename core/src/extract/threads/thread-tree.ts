import { defaultTreeAdapter, html } from 'parse5';
import { removeSurroundings } from '../choose/clutter';
import { descendants, label, type PageElement, remove } from '../page/page-tree';
import type { Post } from './posts';
import type { PostKind } from './stated-posts';

const HEADINGS: Readonly<Record<PostKind, (who: string | null) => string | null>> = {
  question: () => null,
  'accepted answer': (who) => (who === null ? 'Accepted answer' : `Accepted answer: ${who}`),
  answer: (who) => (who === null ? 'Answer' : `Answer: ${who}`),
  post: (who) => who,
};

/** What stands below a post of everybody who has posted often. */
const SIGNATURE = /(?:^|[\s_-])(?:signature|sig|user-?sig)(?:$|[\s_-])/;

/**
 * The posts of a thread as one part of a page: the question, the accepted answer, then the others in the page's order,
 * each under the name of who wrote it. Changes the page's tree.
 */
export function threadPart(posts: readonly Post[]): PageElement {
  const part = make('div');
  const order: PostKind[] = ['question', 'accepted answer', 'answer', 'post'];
  for (const kind of order)
    for (const post of posts.filter((each) => each.kind === kind)) {
      const heading = HEADINGS[kind](post.who);
      if (heading !== null) {
        const element = make('h2');
        defaultTreeAdapter.insertText(element, heading);
        defaultTreeAdapter.appendChild(part, element);
      }
      for (const inner of descendants(post.body)) {
        if (SIGNATURE.test(label(inner))) remove(inner);
        // Below the name that it stands under.
        if (/^h[1-6]$/.test(inner.tagName))
          inner.tagName = inner.nodeName = `h${Math.min(6, Number(inner.tagName[1]) + 2)}`;
      }
      const box = make('div');
      remove(post.body);
      defaultTreeAdapter.appendChild(box, post.body);
      removeSurroundings(box, 'by the surest evidence');
      defaultTreeAdapter.appendChild(part, box);
    }
  return part;
}

function make(tagName: string): PageElement {
  return defaultTreeAdapter.createElement(tagName, html.NS.HTML, []);
}
