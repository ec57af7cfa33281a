import fc from 'fast-check';
import type { Card, Recall, RecallGrade } from '../model';
import { cardKind } from '../records';
import {
  cardFaults,
  gapParts,
  gapsIn,
  intervalsOf,
  intervalWords,
  makeGap,
  promptsOf,
  recallPlan,
  USUAL_LIMITS,
  withoutGaps,
} from '.';

const DAY = 86_400_000;
const START = Date.UTC(2022, 10, 29, 12, 30);
const STAMP = '000000001-0000-a';
const id = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;

function made(front: string, back = 'An answer.', n = 1, madeAt = START): Card {
  const card = cardKind.apply(undefined, {
    type: 'card',
    id: id(900 + n),
    stamp: STAMP,
    cardId: id(n),
    madeAt,
    source: null,
    set: { front, back },
  });
  if (!card) throw new Error('no card');
  return card;
}
let answers = 0;
function answered(card: Card, at: number, grade: RecallGrade, gap = 0): Card {
  const recall: Recall = { id: id(5000 + ++answers), gap, at, grade, undone: false };
  return cardKind.merge(card, { ...card, recalls: { [recall.id]: recall } });
}

describe('gaps', () => {
  it.each([
    ['High water is [[twice]] a day.', [1]],
    ['[[1: Spring]] tides beat [[1: neap]] ones.', [1]],
    ['[[Caulk]] the seam, then [[pay]] it.', [1, 2]],
    ['[[2: b]] and [[a]]', [2, 3]],
    ['none here, [single] or [[]]', []],
  ])('%s', (written, gaps) => {
    expect(gapsIn(written)).toEqual(gaps);
  });

  it('are what the sentence is without them', () => {
    expect(withoutGaps('[[1: Spring]] tides beat [[1:neap]] ones.')).toBe('Spring tides beat neap ones.');
    expect(gapParts('a [[b]] c').map(({ text, gap }) => [text, gap])).toEqual([
      ['a ', 0],
      ['b', 1],
      [' c', 0],
    ]);
  });

  it('are made of what is chosen, grow over what they touch, and leave the blanks outside', () => {
    const sentence = 'High water is twice a day.';
    const one = makeGap(sentence, 13, 20);
    expect(one).toBe('High water is [[twice]] a day.');
    expect(makeGap(one, 20, one.length - 1)).toBe('High water is [[twice a day]].');
    expect(makeGap(sentence, 4, 5)).toBe(sentence);
  });

  it('never lose a letter of the sentence, whatever is made a gap', () => {
    const text = fc.string({ unit: fc.constantFrom('a', 'b', ' ', '.'), minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(text, fc.array(fc.tuple(fc.nat(40), fc.nat(40)), { maxLength: 4 }), (sentence, ranges) => {
        let written = sentence;
        for (const [a, b] of ranges) {
          const [start, end] = [Math.min(a, b), Math.max(a, b)].map((at) => at % (written.length + 1)) as [
            number,
            number,
          ];
          if (start < end) written = makeGap(written, start, end);
          expect(withoutGaps(written)).toBe(sentence);
        }
      }),
    );
  });
});

describe('when a question comes again', () => {
  it('is what ts-fsrs 5.4.2 (FSRS-6, without chance) gives for 3×6, 1, 1, 3×5', () => {
    // Check values for the package, handed down with the project's notes on what to check against.
    let card = made('Q?');
    let now = START;
    const days = ([3, 3, 3, 3, 3, 3, 1, 1, 3, 3, 3, 3, 3] as const).map((grade) => {
      card = answered(card, now, grade);
      const due = promptsOf(card)[0]?.dueAt ?? 0;
      const wait = due - now;
      now = due;
      return wait < DAY / 2 ? 0 : Math.round(wait / DAY);
    });
    expect(days).toEqual([0, 2, 11, 46, 163, 498, 0, 0, 2, 4, 7, 12, 21]);
  });

  it('is later the better it was recalled, and what is said is what will be', () => {
    const card = answered(answered(made('Q?'), START, 3), START + DAY, 3);
    const now = START + 4 * DAY;
    const wait = intervalsOf({ card, gap: 0 }, now);
    expect(wait[1]).toBeLessThan(wait[2]);
    expect(wait[2]).toBeLessThan(wait[3]);
    expect(wait[3]).toBeLessThan(wait[4]);
    for (const grade of [1, 2, 3, 4] as const)
      expect(promptsOf(answered(card, now, grade))[0]?.dueAt).toBe(now + wait[grade]);
  });

  it('does not depend on the order in which devices learn of the answers', () => {
    const answersGiven = fc.array(fc.tuple(fc.integer({ min: 0, max: 90 }), fc.constantFrom(1, 2, 3, 4)), {
      maxLength: 12,
    });
    fc.assert(
      fc.property(answersGiven, fc.infiniteStream(fc.nat()), (given, order) => {
        const parts = given.map(([day, grade]) => answered(made('Q?'), START + day * DAY, grade));
        const shuffled = [...parts].sort(() => ((order.next().value ?? 0) % 2 === 0 ? 1 : -1));
        const join = (all: Card[]) => all.reduce(cardKind.merge, made('Q?'));
        expect(promptsOf(join(shuffled))).toEqual(promptsOf(join(parts)));
      }),
    );
  });

  it('is as it was when an answer is taken back, on whichever device', () => {
    const before = answered(made('Q?'), START, 3);
    const after = answered(before, START + DAY, 1);
    const [last] = Object.values(after.recalls).filter(({ grade }) => grade === 1);
    const undone = { ...after, recalls: { [last!.id]: { ...last!, undone: true } } };
    const due = (card: Card) => promptsOf(card)[0]?.dueAt;
    expect(due(cardKind.merge(after, undone))).toBe(due(before));
    expect(due(cardKind.merge(undone, after))).toBe(due(before));
  });

  it('is counted for each gap by itself', () => {
    const card = answered(made('[[a]] and [[b]]', ''), START, 4, 1);
    const [first, second] = promptsOf(card);
    expect(first?.isFresh).toBe(false);
    expect(second).toMatchObject({ gap: 2, isFresh: true, dueAt: START });
  });

  it('warns of what keeps being forgotten', () => {
    let card = made('Q?');
    let now = START;
    for (let n = 0; n < 3; n++) card = answered(card, (now += 3 * DAY), 3);
    for (let n = 0; n < 6; n++) {
      card = answered(card, (now += 30 * DAY), 1);
      for (let again = 0; again < 3; again++) card = answered(card, (now += 3 * DAY), 3);
    }
    expect(promptsOf(card)[0]).toMatchObject({ isLeech: true, lapses: 6 });
  });

  it.each([
    [60_000, '1 min'],
    [10 * 60_000, '10 min'],
    [3 * 3_600_000, '3 h'],
    [DAY, '1 day'],
    [46 * DAY, '46 days'],
    [163 * DAY, '5 months'],
    [3 * 365 * DAY, '3 years'],
  ])('%d ms is said as %s', (ms, words) => {
    expect(intervalWords(ms)).toBe(words);
  });
});

describe('a recall session', () => {
  const today = START - 3_600_000;
  const plan = (cards: Card[], now = START, limits = USUAL_LIMITS as { fresh: number; repeated: number }) =>
    recallPlan(cards, now, today, limits);
  const asked = (cards: Card[], now = START, limits = USUAL_LIMITS as { fresh: number; repeated: number }) =>
    plan(cards, now, limits).due.map(({ card }) => card.choices.front.value);

  it('asks what was begun today, then what is due longest, then what is new', () => {
    const old = answered(made('Old?', 'A', 2, START - 90 * DAY), START - 80 * DAY, 3);
    const older = answered(made('Older?', 'A', 3, START - 190 * DAY), START - 180 * DAY, 3);
    const begun = answered(made('Begun?', 'A', 4, START - DAY), START - 30 * 60_000, 1);
    expect(asked([made('New?'), old, begun, older])).toEqual(['Begun?', 'Older?', 'Old?', 'New?']);
  });

  it('holds back what is more than the day’s limits, and says how much', () => {
    const fresh = Array.from({ length: 5 }, (_, n) => made(`New ${n}?`, 'A', 20 + n));
    const limited = plan(fresh, START, { fresh: 2, repeated: 9 });
    expect([limited.due.length, limited.heldBack]).toEqual([2, 3]);
    const afterOne = [answered(fresh[0]!, START, 4), ...fresh.slice(1)];
    expect(plan(afterOne, START, { fresh: 2, repeated: 9 }).due).toHaveLength(1);
  });

  it('leaves out what is paused or removed, and says when the next one comes', () => {
    const [paused, removed] = ['paused', 'removed'].map((field, n) => {
      const card = made('Q?', 'A', 40 + n);
      return { ...card, choices: { ...card.choices, [field]: { value: true, at: STAMP } } };
    });
    const later = answered(made('Later?', 'A', 50), START, 4);
    expect(plan([paused!, removed!, later]).due).toEqual([]);
    expect(plan([later]).nextAt).toBe(promptsOf(later)[0]?.dueAt);
    expect(plan([]).nextAt).toBeNull();
  });
});

describe('what speaks against a card (CP: one small fact each)', () => {
  it.each<[string, string, string[]]>([
    ['', '', ['nothing']],
    ['What is the lead hollow for?', '', ['no answer']],
    ['What is the lead hollow for?', 'Tallow, to bring up the ground.', []],
    ['High water is [[twice]] a day.', '', []],
    ['When?', 'It rained. The boat stayed in.', ['several facts']],
    ['Which three?', 'rye, barley, oats', ['a list']],
    ['[[a]] [[b]] [[c]] [[d]]', '', ['many gaps']],
    ['Why?', `Because ${'very '.repeat(30)}long.`, ['long']],
  ])('%s / %s', (front, back, faults) => {
    expect(cardFaults(front, back, 'en')).toEqual(faults);
  });
});
