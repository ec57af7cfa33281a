import { passageAt, placePassage } from '@dorvel/core/highlight';
import type { MarkedPassage } from '@dorvel/core/model';
import { ask, type LiveHighlight } from '../messages';
import { liveText } from './live-text';
import { KINDS, MARK_STYLE } from './mark-style';

/** On a page: shows what the reader marked in it, and says what they have selected. Nothing of the page is changed. */

/** What the background asks of this script. */
export type ToPage = { page: 'selected' } | { page: 'show' };

async function show(): Promise<void> {
  const marks = await ask('marksOn', { address: location.href });
  if (marks) paint(marks);
}

function paint(marks: readonly LiveHighlight[]): void {
  if (!('highlights' in CSS)) return;
  const live = liveText(document.body);
  for (const kind of KINDS) {
    const ranges = marks.flatMap((mark) => {
      const placed = mark.kind === kind ? placePassage(live.text, mark.passage) : null;
      return (placed && live.range(placed.start, placed.end)) ?? [];
    });
    if (ranges.length > 0) CSS.highlights.set(`dorvel-${kind}`, new Highlight(...ranges));
    else CSS.highlights.delete(`dorvel-${kind}`);
  }
}

function selected(): MarkedPassage | null {
  const selection = getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null;
  const live = liveText(document.body);
  const part = live.part(selection.getRangeAt(0));
  if (!part) return null;
  const words = live.text.slice(part.start, part.end);
  const start = part.start + words.length - words.trimStart().length;
  const end = start + words.trim().length;
  return end > start ? passageAt(live.text, start, end, null) : null;
}

// It may be put into a page a second time, when something is to be marked there.
const page = globalThis as { dorvelMarks?: true };
if (!page.dorvelMarks) {
  page.dorvelMarks = true;
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(MARK_STYLE);
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  chrome.runtime.onMessage.addListener((message: ToPage, _sender, respond) => {
    if (message.page === 'selected') respond(selected());
    if (message.page === 'show') void show();
    return false;
  });
  void show();
}
