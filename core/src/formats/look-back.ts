import type { PhrasingContent, RootContent } from 'mdast';
import { toMarkdown } from 'mdast-util-to-markdown';
import type { Best } from '../look-back';
import type { Highlight } from '../model';
import { bestInWords, sourceOf, titleOf } from '../wording';

/**
 * The best of a period as Markdown (CommonMark 0.31), to be taken along: each item with its source and why it is here, what
 * was marked in it as block quotations.
 *
 * @param title of the whole: the name of the period
 */
export function bestAsMarkdown(title: string, best: readonly Best[], highlights: readonly Highlight[]): string {
  const words = (value: string): PhrasingContent => ({ type: 'text', value });
  const children = best.flatMap(({ item, reasons }): RootContent[] => [
    { type: 'heading', depth: 2, children: [words(titleOf(item))] },
    {
      type: 'paragraph',
      children: [
        words(`${sourceOf(item)}, `),
        { type: 'link', url: item.address, children: [words(item.address)] },
        words(`: ${bestInWords(reasons)}`),
      ],
    },
    ...highlights
      .filter(({ itemId }) => itemId === item.id)
      .map(({ choices }): RootContent => ({
        type: 'blockquote',
        children: choices.passage.value.exact
          .split('\n\n')
          .map((part) => ({ type: 'paragraph', children: [words(part)] })),
      })),
  ]);
  return toMarkdown({ type: 'root', children: [{ type: 'heading', depth: 1, children: [words(title)] }, ...children] });
}
