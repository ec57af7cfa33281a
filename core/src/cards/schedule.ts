import { type Card as Memory, createEmptyCard, fsrs, Rating, State } from 'ts-fsrs';
import type { Card, Recall, RecallGrade } from '../model';
import { gapsIn } from './gaps';

/**
 * When a question is asked again: FSRS-6, the Free Spaced Repetition Scheduler, as the package ts-fsrs has it, with its
 * published default parameters and without chance, so that every device comes to the same day.
 */
const scheduler = fsrs({ enable_fuzz: false });
const GRADES = { 1: Rating.Again, 2: Rating.Hard, 3: Rating.Good, 4: Rating.Easy } as const;

/** After this many lapses a question is doing no good as it is; common practice. */
const LAPSES_TO_WARN = 6;
/** New questions, and repeated ones, that a day brings at most; the reader's to set. */
export const USUAL_LIMITS = { fresh: 10, repeated: 100 } as const;
export type RecallLimits = { readonly [Of in keyof typeof USUAL_LIMITS]: number };

/** One question of a card: its gap, or 0 for a card with a question of its own. */
export interface Prompt {
  card: Card;
  gap: number;
  /** Instant from which it may be asked. */
  dueAt: number;
  isFresh: boolean;
  lapses: number;
  /** It was forgotten so often that it should be made again. */
  isLeech: boolean;
}

/** The answers that count, in the order in which they were given. */
function answersOf(card: Card, gap: number): Recall[] {
  return Object.values(card.recalls)
    .filter((recall) => recall.gap === gap && !recall.undone)
    .sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
}

function memoryOf(card: Card, gap: number): Memory {
  let memory = createEmptyCard(card.madeAt);
  for (const { at, grade } of answersOf(card, gap)) memory = scheduler.next(memory, at, GRADES[grade]).card;
  return memory;
}

/** The questions of a card: one, or one for each number of its gaps. */
export function promptsOf(card: Card): Prompt[] {
  const gaps = gapsIn(card.choices.front.value);
  return (gaps.length > 0 ? gaps : [0]).map((gap) => {
    const memory = memoryOf(card, gap);
    return {
      card,
      gap,
      dueAt: memory.due.getTime(),
      isFresh: memory.state === State.New,
      lapses: memory.lapses,
      isLeech: memory.lapses >= LAPSES_TO_WARN,
    };
  });
}

/**
 * When the question would be asked again, for each answer that can be given now.
 *
 * @returns milliseconds from now, by grade
 */
export function intervalsOf({ card, gap }: Pick<Prompt, 'card' | 'gap'>, now: number): Record<RecallGrade, number> {
  const memory = memoryOf(card, gap);
  const after = (grade: RecallGrade) => scheduler.next(memory, now, GRADES[grade]).card.due.getTime() - now;
  return { 1: after(1), 2: after(2), 3: after(3), 4: after(4) };
}

/** An interval as it is said to the reader: "10 min", "2 days", "5 months". */
export function intervalWords(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  if (minutes < 60) return `${Math.max(1, minutes)} min`;
  const days = Math.round(ms / 86_400_000);
  if (days < 1) return `${Math.round(minutes / 60)} h`;
  if (days < 60) return days === 1 ? '1 day' : `${days} days`;
  const months = Math.round(days / 30.4);
  return months < 24 ? `${months} months` : `${Math.round(days / 365.25)} years`;
}

/** What a recall session has to ask. */
export interface RecallPlan {
  /** In the order in which they are asked: those begun today first, then the longest due, then new ones. */
  due: Prompt[];
  /** How many more are due today than the limits let through. */
  heldBack: number;
  /** When the next one comes that is not due now; null when none does. */
  nextAt: number | null;
}

/**
 * The questions that are due.
 *
 * @param today begins at this instant; answers since then count against the limits
 */
export function recallPlan(cards: readonly Card[], now: number, today: number, limits: RecallLimits): RecallPlan {
  const prompts = cards.filter(({ choices }) => !choices.paused.value && !choices.removed.value).flatMap(promptsOf);
  const due = prompts.filter(({ dueAt }) => dueAt <= now);
  const begun = new Set<Prompt>();
  let [freshToday, repeatedToday] = [0, 0];
  for (const prompt of prompts) {
    const answers = answersOf(prompt.card, prompt.gap);
    const first = answers[0];
    if (first && first.at >= today) freshToday += 1;
    else if ((answers.at(-1)?.at ?? 0) >= today) repeatedToday += 1;
    if ((answers.at(-1)?.at ?? 0) >= today) begun.add(prompt);
  }
  const byDue = (a: Prompt, b: Prompt) =>
    a.dueAt - b.dueAt || Number(a.card.id > b.card.id) - Number(a.card.id < b.card.id) || a.gap - b.gap;
  // What was begun today is finished today, whatever the limits say.
  const again = due.filter((prompt) => begun.has(prompt)).sort(byDue);
  const repeated = due.filter((prompt) => !prompt.isFresh && !begun.has(prompt)).sort(byDue);
  const fresh = due.filter((prompt) => prompt.isFresh).sort((a, b) => a.card.madeAt - b.card.madeAt || byDue(a, b));
  const chosen = [
    ...again,
    ...repeated.slice(0, Math.max(0, limits.repeated - repeatedToday)),
    ...fresh.slice(0, Math.max(0, limits.fresh - freshToday)),
  ];
  const later = prompts.flatMap(({ dueAt }) => (dueAt > now ? [dueAt] : []));
  return {
    due: chosen,
    heldBack: due.length - chosen.length,
    nextAt: later.length > 0 ? Math.min(...later) : null,
  };
}
