import { fractionAbove, wordsAbove } from '@dorvel/core/text';
import { lineAt, scrollForLine, type Viewport } from './reading-line';

/**
 * How a reader stands to an open text:
 * - `opening`: they have not moved since it was opened or since the voice left them here; the text holds its place
 * - `reading`: they have moved; where they stay is recorded
 * - `elsewhere`: they look at a note or at what was found; where they stopped stays recorded
 * - `carried`: the voice has them; what scrolls is no reading by eye
 */
export type ReadingState = 'opening' | 'reading' | 'elsewhere' | 'carried';

/** A text as it stands in what scrolls, in CSS pixels. */
export interface Surface {
  /** Null while it is not on screen. */
  viewport(): Viewport | null;
  scrollTo(top: number): void;
  /** How far below the top of what scrolls the line of a character begins. */
  topOf(offset: number): number;
  /** The first character of the line at or below a height in what scrolls. */
  offsetAt(height: number): number;
  /** Of the text that is set by now. */
  textHeight(): number;
}

interface Timers {
  /** @returns what calls it off */
  after(ms: number, work: () => void): () => void;
  /** Before the next painting. @returns what calls it off */
  nextFrame(work: () => void): () => void;
}

interface Told {
  /** The reader has stayed at a place to which they moved. */
  stayed(offset: number): void;
  /** They are reading by eye, this many words into the text; null when nobody reads by eye now. */
  reading(word: number | null): void;
}

/** What is to be seen of it beside the text. */
export interface PlaceSeen {
  /** The fraction of words above the reading line now. */
  fraction: number;
  /** True when there is a way back from where a link inside the text has led. */
  canGoBack: boolean;
  /** Where the reader has read on to on another device, while they had moved here too; null when they have not. */
  readOnTo: number | null;
}

export type ReadingPlace = ReturnType<typeof createReadingPlace>;

/** A place counts when the reader has stayed at it this long; what flies past does not. */
const DWELL_MS = 700;
/** Above the first word: at a picture that stands before it. */
export const BEFORE_ALL = -1;
/** How far down the screen what was found is brought. */
const FOUND_AT = 0.25;

/**
 * The reader's place in an open text: held when the layout changes, recorded as they move. Only moves of the reader's own
 * are recorded. Knows nothing of a browser: what happens comes in, where the text is to stand goes out.
 *
 * @param text its length and where its words start, in UTF-16 units
 * @param start the offset at which it is opened
 */
export function createReadingPlace(
  text: { length: number; starts: readonly number[] },
  start: number,
  surface: Surface,
  timers: Timers,
  told: Told,
) {
  let offset = start;
  let hasMoved = false;
  let isCarried = false;
  let lookingAt: 'note' | 'found' | null = null;
  let foundAt = 0;
  let recorded: number | null = null;
  /** Of the text, what is set by now, from 0 to 1; and whether that has grown since the layout was last seen to change. */
  let shown = 1;
  let hasGrown = false;
  /** Where we scrolled to ourselves, and how tall the content was when the place was last known to be right. */
  let ours = { top: -1, height: -1 };
  let cancelDwell = () => {};
  let cancelLook = () => {};
  let seen: PlaceSeen = { fraction: fractionAbove(text.starts, start), canGoBack: false, readOnTo: null };
  let wayBack: number | null = null;
  const listeners = new Set<() => void>();

  const show = (change: Partial<PlaceSeen>) => {
    const next = { ...seen, ...change };
    if (next.fraction === seen.fraction && next.canGoBack === seen.canGoBack && next.readOnTo === seen.readOnTo) return;
    seen = next;
    for (const listener of listeners) listener();
  };
  const moveTo = (to: number) => {
    offset = to;
    show({ fraction: fractionAbove(text.starts, to) });
  };
  /** While only a part of the text is set, the height of the rest is estimated. */
  const withRest = (view: Viewport): Viewport => ({
    ...view,
    scrollHeight: view.scrollHeight + surface.textHeight() * (1 / shown - 1),
  });
  const state = (): ReadingState =>
    isCarried ? 'carried' : lookingAt ? 'elsewhere' : hasMoved ? 'reading' : 'opening';

  const restore = () => {
    const view = surface.viewport();
    if (!view || isCarried || lookingAt) return;
    // At the very start the headline should be seen, not the first line under it.
    const line = offset === 0 ? 0 : surface.topOf(offset) + 1;
    surface.scrollTo(scrollForLine(line, withRest(view)));
    const after = surface.viewport() ?? view;
    ours = { top: after.scrollTop, height: after.scrollHeight };
  };
  const record = () => {
    if (isCarried) return;
    told.reading(wordsAbove(text.starts, offset));
    if (!hasMoved || recorded === offset) return;
    recorded = offset;
    told.stayed(offset);
  };
  const dwell = () => {
    cancelDwell();
    cancelDwell = timers.after(DWELL_MS, record);
  };
  /** Takes for the reader's place what is at the reading line. */
  const look = () => {
    const view = surface.viewport();
    if (!view) return;
    ours = { top: -1, height: view.scrollHeight };
    const isAtEnd = shown >= 1 && view.scrollTop >= view.scrollHeight - view.height - 2;
    moveTo(isAtEnd ? text.length : view.scrollTop <= 1 ? 0 : surface.offsetAt(lineAt(withRest(view))));
  };
  const bringFound = () => {
    const view = surface.viewport();
    if (view) surface.scrollTo(foundAt === BEFORE_ALL ? 0 : surface.topOf(foundAt) - FOUND_AT * view.height);
  };

  const rest = (to: number) => {
    lookingAt = null;
    moveTo(to);
    told.reading(null);
    recorded = to;
    // The reader has not moved by eye yet; until they do nothing is recorded.
    hasMoved = false;
    isCarried = false;
    restore();
  };

  return {
    state,
    seen: () => seen,
    subscribe(listener: () => void): () => void {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    /** The offset in the text that the reading line is at. */
    offset: () => offset,

    /** The text is on screen. */
    opened: () => told.reading(wordsAbove(text.starts, start)),
    /** The screen is left, or put away: what is not recorded yet is. */
    hidden: record,
    closed() {
      cancelDwell();
      cancelLook();
      record();
      hasMoved = false;
    },

    /** The reader does something that moves a text, or presses on it: a press may lead elsewhere and ends no look. */
    touched(how: 'move' | 'press') {
      hasMoved = true;
      if (how === 'move') lookingAt = null;
    },
    scrolled() {
      const view = surface.viewport();
      // A look at a note, or at what was found, is no reading: the place stays where the reader left it.
      if (!view || state() !== 'reading') return;
      // Our own scrolling is no move of the reader's; nor is the browser's when the layout has changed under it,
      // which is put right as soon as the change has been seen. Measuring then would let the place drift.
      if (Math.abs(view.scrollTop - ours.top) < 1 || view.scrollHeight !== ours.height) return;
      cancelLook();
      cancelLook = timers.nextFrame(look);
      dwell();
    },
    /** So much of the text is set by now, from 0 to 1. */
    set(fraction: number) {
      if (fraction !== shown) hasGrown = true;
      shown = fraction;
    },
    /**
     * The fonts and the pictures' sizes settle after the first layout, and settings change it later: the place is held.
     *
     * @param isBelow what changed stands under the text
     */
    layoutChanged(isBelow: boolean) {
      const isNextPart = hasGrown;
      hasGrown = false;
      if (lookingAt === 'found' && !isCarried) bringFound();
      const view = surface.viewport();
      if (!view) return;
      if (lookingAt || isCarried) {
        // What they scroll from here on is a move of theirs.
        ours.height = view.scrollHeight;
        return;
      }
      if (!hasMoved || !(isBelow || isNextPart)) {
        restore();
        return;
      }
      // What comes or goes under what is seen, a further part or related items, must not move the text under the reader's eyes.
      ours.height = view.scrollHeight;
      // They may have scrolled in the very frame in which the part came.
      if (isNextPart && Math.abs(view.scrollTop - ours.top) >= 1) {
        look();
        dwell();
      }
    },

    /** Goes to a fraction of the text, as a move of the reader's. */
    goTo(to: number) {
      hasMoved = true;
      lookingAt = null;
      const { starts, length } = text;
      moveTo(to >= 1 ? length : to <= 0 ? 0 : (starts[Math.floor(to * starts.length)] ?? 0));
      restore();
      const view = surface.viewport();
      if (to >= 1 && view) surface.scrollTo(view.scrollHeight);
      dwell();
    },
    /** Opens the text at what was found in it, or goes to the next of it: a look, no reading. @param at an offset, or BEFORE_ALL */
    showFound(at: number) {
      lookingAt = 'found';
      foundAt = at;
      bringFound();
    },
    foundIsDone() {
      lookingAt = null;
    },
    /** The reader follows a link inside the text. From one note to the next, the way back is still the one to the text. */
    leave() {
      wayBack ??= surface.viewport()?.scrollTop ?? null;
      lookingAt = 'note';
      show({ canGoBack: wayBack !== null });
    },
    goBack() {
      if (wayBack !== null) surface.scrollTo(wayBack);
      wayBack = null;
      show({ canGoBack: false });
    },

    /** The voice begins to carry the reader, or ends. */
    carry(on: boolean) {
      isCarried = on;
    },
    /** Takes a place for the reader's without scrolling there: the voice is at it. */
    follow(to: number) {
      moveTo(to);
      told.reading(null);
    },
    /** Goes to a place that is recorded already: the voice has stopped there. */
    rest,

    /**
     * The place was moved on another device. Where nothing has been moved since the text was opened, it goes along; where the
     * reader is at it themselves, the other place is offered.
     */
    movedElsewhere(to: number) {
      if (state() === 'opening') rest(to);
      else show({ readOnTo: to });
    },
    /** The reader moves on here: what is elsewhere is passed. */
    movedHere: () => show({ readOnTo: null }),
    goElsewhere() {
      if (seen.readOnTo !== null) rest(seen.readOnTo);
      show({ readOnTo: null });
    },
  };
}
