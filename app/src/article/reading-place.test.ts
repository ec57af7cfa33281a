import fc from 'fast-check';
import { BEFORE_ALL, createReadingPlace } from './reading-place';

const LINE = 20;
const CHARACTERS_IN_A_LINE = 10;
const LENGTH = 4000;
const HEIGHT = 600;
const HEAD = 100;
/** One word in ten characters: a word a line. */
const text = { length: LENGTH, starts: Array.from({ length: 400 }, (_, n) => n * 10) };

/** A column of lines under a head, in what scrolls; a clock that is turned by hand; and what was told. */
function opened(start = 0, lines = LENGTH / CHARACTERS_IN_A_LINE) {
  const screen = { scrollTop: 0, line: LINE, below: 0, lines };
  const scrollHeight = () => HEAD + screen.lines * screen.line + screen.below;
  let now = 0;
  let due: { at: number; work: () => void }[] = [];
  const stayed: number[] = [];
  const reading: (number | null)[] = [];
  const later = (at: number, work: () => void) => {
    const entry = { at, work };
    due.push(entry);
    return () => void (due = due.filter((each) => each !== entry));
  };
  const place = createReadingPlace(
    text,
    start,
    {
      viewport: () => ({ scrollTop: screen.scrollTop, height: HEIGHT, scrollHeight: scrollHeight() }),
      scrollTo: (top) => (screen.scrollTop = Math.min(Math.max(0, top), scrollHeight() - HEIGHT)),
      topOf: (offset) => HEAD + Math.floor(offset / CHARACTERS_IN_A_LINE) * screen.line,
      offsetAt: (height) =>
        Math.min(LENGTH, Math.max(0, Math.floor((height - HEAD) / screen.line) * CHARACTERS_IN_A_LINE)),
      textHeight: () => screen.lines * screen.line,
    },
    { after: (ms, work) => later(now + ms, work), nextFrame: (work) => later(now + 16, work) },
    { stayed: (offset) => stayed.push(offset), reading: (word) => reading.push(word) },
  );
  place.opened();
  place.layoutChanged(false);
  const pass = (ms: number) => {
    now += ms;
    const ready = due.filter(({ at }) => at <= now);
    due = due.filter(({ at }) => at > now);
    for (const { work } of ready) work();
  };
  return {
    place,
    screen,
    stayed,
    reading,
    pass,
    /** The reader scrolls, and the browser tells it. */
    scrollBy(by: number) {
      place.touched('move');
      screen.scrollTop = Math.min(scrollHeight() - HEIGHT, Math.max(0, screen.scrollTop + by));
      place.scrolled();
    },
  };
}

it('opens at its start, or at the place at which the reader was', () => {
  expect(opened().screen.scrollTop).toBe(0);
  const { screen, place } = opened(2000);
  expect(place.state()).toBe('opening');
  expect(place.seen().fraction).toBeCloseTo(0.5, 2);
  expect(screen.scrollTop).toBeGreaterThan(3000);
});

describe('where the reader stays', () => {
  it('is recorded once they have stayed there, not what flies past', () => {
    const { scrollBy, pass, stayed, place } = opened();
    scrollBy(400);
    pass(200);
    scrollBy(400);
    expect(stayed).toEqual([]);
    pass(16);
    pass(700);
    expect(stayed).toEqual([place.offset()]);
    expect(place.state()).toBe('reading');
    pass(5000);
    expect(stayed).toHaveLength(1);
  });

  it('is 0 at the top and all of it at the foot', () => {
    const { scrollBy, pass, stayed } = opened(2000);
    scrollBy(100_000);
    pass(16);
    pass(700);
    scrollBy(-100_000);
    pass(16);
    pass(700);
    expect(stayed).toEqual([LENGTH, 0]);
  });

  it('is recorded at once when the screen is put away, and by the clock of the eyes', () => {
    const { scrollBy, pass, stayed, reading, place } = opened();
    scrollBy(900);
    pass(16);
    place.hidden();
    expect(stayed).toEqual([place.offset()]);
    expect(reading.at(-1)).toBe(place.offset() / 10);
  });

  it('is not recorded when nobody has moved, whatever the browser scrolls', () => {
    const { place, screen, pass, stayed } = opened(2000);
    screen.scrollTop += 500;
    place.scrolled();
    pass(1000);
    place.closed();
    expect(stayed).toEqual([]);
  });
});

describe('when the layout changes', () => {
  it('the place stands still before and after the reader has moved', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 390 }),
        fc.integer({ min: 12, max: 60 }),
        fc.boolean(),
        (word, line, moves) => {
          const { place, screen, pass, scrollBy } = opened(word * 10);
          if (moves) {
            scrollBy(40);
            pass(16);
            pass(700);
          }
          const before = place.offset();
          screen.line = line;
          place.layoutChanged(false);
          place.scrolled();
          pass(1000);
          expect(place.offset()).toBe(before);
          // Where the line of the place now stands is where the reading line is.
          const most = HEAD + screen.lines * line - HEIGHT;
          const at = screen.scrollTop + (screen.scrollTop / most) * HEIGHT;
          if (screen.scrollTop > 1 && screen.scrollTop < most - 1)
            expect(Math.abs(at - (HEAD + Math.floor(before / 10) * line))).toBeLessThan(1.01);
        },
      ),
    );
  });

  it('under what is seen, the text does not move under the eyes of who has moved', () => {
    const { place, screen, scrollBy, pass } = opened();
    scrollBy(500);
    pass(16);
    const top = screen.scrollTop;
    screen.below = 900;
    place.layoutChanged(true);
    expect(screen.scrollTop).toBe(top);
    // And what they scroll from there is theirs.
    scrollBy(60);
    pass(16);
    expect(place.seen().fraction).toBeGreaterThan(0);
  });

  it('a part that comes in the frame in which they scroll leaves them where they scrolled to', () => {
    const { place, screen, pass, stayed } = opened(0, 100);
    place.set(0.25);
    place.layoutChanged(false);
    place.touched('move');
    screen.scrollTop = 700;
    screen.lines = 200;
    place.set(0.5);
    place.layoutChanged(false);
    expect(screen.scrollTop).toBe(700);
    pass(700);
    expect(stayed).toEqual([place.offset()]);
    expect(place.offset()).toBeGreaterThan(200);
  });

  it('the height of what is not set yet counts', () => {
    const part = opened(0, 100);
    part.place.set(0.25);
    const whole = opened(0);
    for (const { scrollBy, pass } of [part, whole]) {
      scrollBy(800);
      pass(16);
    }
    expect(part.place.offset()).toBe(whole.place.offset());
  });
});

describe('a look elsewhere', () => {
  it('at what was found records nothing, and is brought again until the reader moves', () => {
    const { place, screen, pass, stayed, scrollBy } = opened();
    place.showFound(3000);
    expect(place.state()).toBe('elsewhere');
    expect(screen.scrollTop).toBe(HEAD + 300 * LINE - 0.25 * HEIGHT);
    screen.line = 30;
    place.layoutChanged(false);
    expect(screen.scrollTop).toBe(HEAD + 300 * 30 - 0.25 * HEIGHT);
    place.scrolled();
    pass(1000);
    expect([stayed, place.offset()]).toEqual([[], 0]);
    scrollBy(10);
    expect(place.state()).toBe('reading');
    pass(16);
    pass(700);
    expect(stayed[0]).toBeGreaterThan(2000);
  });

  it('at a picture before the first word shows the top', () => {
    const { place, screen } = opened();
    place.showFound(3000);
    place.showFound(BEFORE_ALL);
    expect([screen.scrollTop, place.state()]).toEqual([0, 'elsewhere']);
  });

  it('at a note keeps the way back to the text, also from note to note', () => {
    const { place, screen, scrollBy, pass, stayed } = opened();
    scrollBy(300);
    pass(16);
    const from = screen.scrollTop;
    place.touched('press');
    place.leave();
    screen.scrollTop = 5000;
    place.scrolled();
    place.leave();
    screen.scrollTop = 6000;
    expect([place.state(), place.seen().canGoBack]).toEqual(['elsewhere', true]);
    place.touched('press');
    expect(place.state()).toBe('elsewhere');
    place.goBack();
    expect([screen.scrollTop, place.seen().canGoBack]).toEqual([from, false]);
    pass(1000);
    expect(stayed.every((offset) => offset < 500)).toBe(true);
  });
});

describe('the voice', () => {
  it('carries the reader: the place follows, and nothing is read by eye', () => {
    const { place, screen, pass, stayed, reading } = opened();
    place.carry(true);
    place.follow(1500);
    screen.scrollTop = 2000;
    place.touched('move');
    place.scrolled();
    place.layoutChanged(false);
    pass(1000);
    place.hidden();
    expect([place.state(), place.offset(), stayed]).toEqual(['carried', 1500, []]);
    expect(reading.slice(1)).toEqual([null]);
    place.rest(1600);
    expect(place.state()).toBe('opening');
    expect(screen.scrollTop).toBeGreaterThan(2000);
    place.hidden();
    expect(stayed).toEqual([]);
  });
});

describe('another device', () => {
  it('takes the text along while nothing was moved here, and is offered otherwise', () => {
    const still = opened();
    still.place.movedElsewhere(2500);
    expect([still.place.offset(), still.place.seen().readOnTo]).toEqual([2500, null]);

    const { place, scrollBy, pass } = opened();
    scrollBy(300);
    pass(16);
    const here = place.offset();
    place.movedElsewhere(2500);
    expect([place.offset(), place.seen().readOnTo]).toEqual([here, 2500]);
    place.goElsewhere();
    expect([place.offset(), place.seen().readOnTo, place.state()]).toEqual([2500, null, 'opening']);
    place.touched('move');
    place.movedElsewhere(100);
    place.movedHere();
    expect(place.seen().readOnTo).toBeNull();
  });
});

it('goes to a fraction of the text as a move of the reader’s, and tells who looks on', () => {
  const { place, screen, pass, stayed } = opened();
  const told = jest.fn();
  const end = place.subscribe(told);
  place.goTo(0.5);
  pass(700);
  expect([stayed, place.seen().fraction]).toEqual([[2000], 0.5]);
  place.goTo(1);
  expect(screen.scrollTop).toBe(HEAD + 400 * LINE - HEIGHT);
  expect(told).toHaveBeenCalledTimes(2);
  place.goTo(1);
  end();
  place.goTo(0);
  expect(told).toHaveBeenCalledTimes(2);
});
