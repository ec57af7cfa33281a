import type { HighlightKind } from '@dorvel/core/model';
import tokens from '../../../app/src/ui/tokens';

const UNDERLINES: Readonly<Record<HighlightKind, string>> = {
  key: 'solid',
  question: 'dotted',
  quote: 'double',
  'to-do': 'dashed',
  doubt: 'wavy',
};

/** Listed here again, since their schema would bring the whole of its package into every page. */
export const KINDS = Object.keys(UNDERLINES) as readonly HighlightKind[];

/**
 * How what is marked looks on somebody else's page: as in the reader, and by day always, since the page's own colours are
 * not known. The words keep an ink that can be read on the tint.
 */
export const MARK_STYLE = KINDS.map(
  (kind) =>
    `::highlight(dorvel-${kind}){background-color:${tokens.day[`mark-${kind}`]};color:${tokens.day.ink};text-decoration:underline 2px ${UNDERLINES[kind]} ${tokens.day.ochre}}`,
).join('\n');
