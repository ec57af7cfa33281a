import type { Paragraph, PhrasingContent, RootContent } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { toMarkdown } from 'mdast-util-to-markdown';
import type { Highlight, Item, Note } from '../model';
import { notesUnder, noteText } from '../notes';
import { HIGHLIGHT_KIND_WORDS, sourceOf, titleOf } from '../wording';

/** Highlights with the item that they are in, in the order in which they are to be read, and what was written on either. */
export interface HighlightedItem {
  item: Item;
  highlights: readonly Highlight[];
  notes: readonly Note[];
}

/**
 * Highlights as Markdown (CommonMark 0.31): a heading with its source for each item, a block quotation for each passage, the
 * reader's own words under it.
 */
export function highlightsAsMarkdown(marked: readonly HighlightedItem[]): string {
  const written = (notes: readonly Note[]) =>
    // They are Markdown already.
    notes.flatMap((note): RootContent[] => fromMarkdown(noteText(note)).children);
  const children = marked.flatMap((each): RootContent[] => {
    const { item, highlights } = each;
    return [
      { type: 'heading', depth: 2, children: [words(titleOf(item))] },
      paragraph(words(`${sourceOf(item)}, `), {
        type: 'link',
        url: item.address,
        children: [words(item.address)],
      }),
      ...highlights.flatMap(({ id, choices }): RootContent[] => [
        {
          type: 'blockquote',
          children: [
            ...choices.passage.value.exact.split('\n\n').map((part) => paragraph(words(part))),
            paragraph({ type: 'emphasis', children: [words(HIGHLIGHT_KIND_WORDS[choices.kind.value])] }),
          ],
        },
        ...written(notesUnder(each, id)),
      ]),
      ...written(notesUnder(each, null)),
    ];
  });
  return toMarkdown({ type: 'root', children });
}

const words = (value: string): PhrasingContent => ({ type: 'text', value });
const paragraph = (...children: PhrasingContent[]): Paragraph => ({ type: 'paragraph', children });

/**
 * Highlights as W3C Web Annotations (Web Annotation Data Model and Vocabulary, 2017; JSON-LD), one page of them. A kind is a
 * tag on the passage, its note a comment on it; what else was written on a highlight, or on a note, replies to that.
 */
export function highlightsAsAnnotations(marked: readonly HighlightedItem[]): object {
  return {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    type: 'AnnotationPage',
    items: marked.flatMap(({ item, highlights, notes }) => [
      ...highlights.map(({ id, madeAt, choices }) => {
        const { exact, prefix, suffix, start } = choices.passage.value;
        const own = notes.find((each) => each.id === id);
        const note = own ? noteText(own) : '';
        return {
          id: `urn:uuid:${id}`,
          type: 'Annotation',
          motivation: note === '' ? 'highlighting' : ['highlighting', 'commenting'],
          created: new Date(madeAt).toISOString(),
          body: [
            { type: 'TextualBody', purpose: 'tagging', value: choices.kind.value },
            ...(note === ''
              ? []
              : [{ type: 'TextualBody', purpose: 'commenting', format: 'text/markdown', value: note }]),
          ],
          target: {
            source: item.address,
            selector: [
              { type: 'TextQuoteSelector', exact, prefix, suffix },
              ...(start === null ? [] : [{ type: 'TextPositionSelector', start, end: start + exact.length }]),
            ],
          },
        };
      }),
      ...notes
        .filter((note) => !isOwn(note))
        .map((note) => ({
          id: `urn:uuid:${note.id}`,
          type: 'Annotation',
          motivation: purposeOf(note),
          created: new Date(note.madeAt).toISOString(),
          body: [
            {
              type: 'TextualBody',
              purpose: purposeOf(note),
              format: 'text/markdown',
              value: noteText(note),
            },
          ],
          target: 'id' in note.on ? `urn:uuid:${note.on.id}` : item.address,
        })),
    ]),
  };
}

/** The note that a highlight has a field for is a comment in the highlight's own annotation. */
const isOwn = ({ id, on }: Note) => on.kind === 'highlight' && on.id === id;
const purposeOf = ({ on }: Note) => ('id' in on ? 'replying' : 'commenting');
