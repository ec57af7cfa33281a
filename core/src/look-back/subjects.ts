import type { TermProfile } from '../terms';

/** What some items speak of together. */
export interface Subject {
  /** The name or term that says it best, as it stands most often. */
  form: string;
  /** Those items, the one that makes most of it first. */
  items: string[];
  /** How many items of the period before speak of it. */
  before: number;
}

interface Profiled {
  id: string;
  profile: Pick<TermProfile, 'title' | 'phrases'>;
}

/** What a title names is what its text is about. */
const TITLE_RAISE = 3;
/** A single word that is no name and in no title says less. */
const WORD_ALONE = 0.3;
/** What no item says twice is only mentioned. */
const SPOKEN_OF = 2;

/**
 * The subjects of a period: names and terms that several of its items speak of, or that the title of one names; those
 * together that have a word in common, and none that stands only in the items of one that is told already.
 *
 * @param now the items that the reader spent time with
 * @param before those of the period before
 */
export function subjectsOf(now: readonly Profiled[], before: readonly Profiled[], most: number): Subject[] {
  const seen = new Map<
    string,
    { form: string; weight: number; most: number; named: boolean; items: Map<string, number> }
  >();
  for (const { id, profile } of now)
    for (const [key, form, count, salience] of profile.phrases) {
      const known = seen.get(key) ?? { form, weight: 0, most: 0, named: false, items: new Map<string, number>() };
      const named = key.split(' ').every((word) => profile.title.includes(word));
      const isPassing = !named && !key.includes(' ') && !/^\p{Lu}/u.test(form);
      const weight = salience * (named ? TITLE_RAISE : isPassing ? WORD_ALONE : 1);
      known.items.set(id, weight);
      known.weight += weight;
      known.most = Math.max(known.most, count);
      known.named ||= named;
      seen.set(key, known);
    }
  const ranked = [...seen]
    .filter(([, { items, most: times, named }]) => (items.size > 1 ? named || times >= SPOKEN_OF : named))
    .map(([key, { form, weight, items, most: times }]) => ({ key, form, items, times, weight: weight * items.size }))
    .sort((a, b) => b.weight - a.weight || (a.key < b.key ? -1 : 1));
  const clusters: { keys: string[]; form: string; times: number; items: Map<string, number> }[] = [];
  for (const { key, form, items, times } of ranked) {
    const cluster = clusters.find((each) => each.keys.some((other) => sharesWord(other, key)));
    if (cluster) {
      cluster.keys.push(key);
      // What is said once names it only until something better does.
      if (cluster.times < SPOKEN_OF && times >= SPOKEN_OF) Object.assign(cluster, { form, times });
      for (const [id, weight] of items) cluster.items.set(id, Math.max(cluster.items.get(id) ?? 0, weight));
    } else if (clusters.length < most && !clusters.some((each) => isWithin(items, each.items)))
      clusters.push({ keys: [key], form, times, items: new Map(items) });
  }
  return clusters.map(({ keys, form, items }) => ({
    form,
    items: [...items].sort((a, b) => b[1] - a[1]).map(([id]) => id),
    before: before.filter(({ profile }) => profile.phrases.some(([key]) => keys.includes(key))).length,
  }));
}

const sharesWord = (a: string, b: string): boolean => a.split(' ').some((word) => b.split(' ').includes(word));

/** Whether others speak of something that says no more than a subject which is told already: it is only in its items. */
function isWithin(items: ReadonlyMap<string, number>, told: ReadonlyMap<string, number>): boolean {
  return [...items.keys()].every((id) => told.has(id));
}
