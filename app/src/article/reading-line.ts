/**
 * The reading line is where the eyes are taken to be. It moves down the screen as the reader moves through the
 * text: at the top of the screen when the text is at its start, at the bottom when it is at its end. So progress
 * is 0 at the start and 1 at the end, whatever the screen's height, and each place has one scroll position.
 */
export interface Viewport {
  scrollTop: number;
  /** Height of what is seen. */
  height: number;
  /** Height of all there is to scroll through. */
  scrollHeight: number;
}

/** Height of the reading line in the content. */
export function lineAt({ scrollTop, height, scrollHeight }: Viewport): number {
  const most = scrollHeight - height;
  return most <= 0 ? 0 : scrollTop + (scrollTop / most) * height;
}

/** The scroll position that puts the reading line at a height in the content: the inverse of lineAt. */
export function scrollForLine(line: number, { height, scrollHeight }: Omit<Viewport, 'scrollTop'>): number {
  const most = scrollHeight - height;
  return most <= 0 ? 0 : Math.min(most, Math.max(0, line / (1 + height / most)));
}
