/** How long a text takes to unfold out of its row, in milliseconds. */
const UNFOLD_MS = 180;
/** What was pressed longer ago than this is not what is opened now. */
const PRESSED_MS = 1500;

let pressed: { top: number; bottom: number; at: number } | null = null;

/** Remembers the row that leads to what is opened next. */
export function openedFrom(row: Element): void {
  const { top, bottom } = row.getBoundingClientRect();
  pressed = { top, bottom, at: performance.now() };
}

/** Lets what was opened grow out of the row that was pressed, so that it is seen where it came from; at once with reduced motion. */
export function unfold(opened: HTMLElement): void {
  const from = pressed;
  pressed = null;
  if (!from || performance.now() - from.at > PRESSED_MS) return;
  if (matchMedia('(prefers-reduced-motion: reduce)').matches) return;
  const frame = opened.getBoundingClientRect();
  const [top, bottom] = [from.top - frame.top, frame.bottom - from.bottom].map((room) => Math.max(0, Math.round(room)));
  opened.animate([{ clipPath: `inset(${top}px 0 ${bottom}px 0)` }, { clipPath: 'inset(0)' }], {
    duration: UNFOLD_MS,
    easing: 'cubic-bezier(0.2, 0, 0, 1)',
  });
}
