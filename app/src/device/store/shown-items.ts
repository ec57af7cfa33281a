import { type Item, Stage } from '@dorvel/core/model';
import { byRaised, withMerged } from '@dorvel/core/queue';
import { LayeredMap } from './layered-map';
import { atPace, type Paces } from './pace';

/** Items as screens have them: but those that another stands for, with the minutes that they take this reader. */
export interface Shown {
  /** The newest save first, as within each of the stages. */
  soFar: readonly Item[];
  byId: ReadonlyMap<string, Item>;
  /** Of those that another item stands for, its id. */
  standIns: ReadonlyMap<string, string>;
  inStage: Readonly<Record<Stage, readonly Item[]>>;
  /** All but what was let go. */
  held: readonly Item[];
}

/** No items, by stage. */
export const noStages = (): Record<Stage, Item[]> =>
  Object.fromEntries(Stage.options.map((stage) => [stage, []])) as unknown as Record<Stage, Item[]>;

const isPointer = ({ capture }: Item): boolean => capture.duplicateOf !== null;
const isHeld = ({ choices }: Item): boolean => choices.stage.value !== 'let-go';
const stageOf = ({ choices }: Item): Stage => choices.stage.value;

/** @param read all items by id, as the device has them */
export function shownOf(read: ReadonlyMap<string, Item>, paces: Paces): Shown {
  const soFar: Item[] = [];
  const standIns = new Map<string, string>();
  for (const item of read.values())
    if (item.capture.duplicateOf === null) soFar.push(atPace(item, paces));
    else standIns.set(item.id, item.capture.duplicateOf);
  soFar.sort(byRaised);
  const inStage = noStages();
  for (const item of soFar) inStage[stageOf(item)].push(item);
  const byId = LayeredMap.of(new Map(soFar.map((item) => [item.id, item])));
  return { soFar, byId, standIns, inStage, held: soFar.filter(isHeld) };
}

/**
 * The same after some have changed: ten thousand are not looked at and sorted anew for each sentence that is read. What has not
 * changed stays the same object, and so does a stage that none of them was or is in.
 *
 * @param before as it was shown last
 * @param read all items by id, as the device has them now
 * @param changed ids of all that changed, came or went since
 */
export function shownAfter(
  before: Shown,
  read: ReadonlyMap<string, Item>,
  changed: ReadonlySet<string>,
  paces: Paces,
): Shown {
  const ids = [...changed];
  const found = ids.flatMap((id) => read.get(id) ?? []);
  const going = ids.flatMap((id) => before.byId.get(id) ?? []);
  const coming = found.filter((item) => !isPointer(item)).map((item) => atPace(item, paces));
  const merged = (list: readonly Item[], which: (item: Item) => boolean) =>
    withMerged(list, going.filter(which), coming.filter(which), byRaised);

  const byId = LayeredMap.of(before.byId).with([
    ...going.map(({ id }) => [id, undefined] as const),
    ...coming.map((item) => [item.id, item] as const),
  ]);
  const inStage = { ...before.inStage };
  for (const stage of new Set([...going, ...coming].map(stageOf)))
    inStage[stage] = merged(inStage[stage], (item) => stageOf(item) === stage);

  let { standIns } = before;
  if (found.some(isPointer) || ids.some((id) => standIns.has(id))) {
    const pointers = new Map(standIns);
    for (const id of ids) pointers.delete(id);
    for (const { id, capture } of found) if (capture.duplicateOf !== null) pointers.set(id, capture.duplicateOf);
    standIns = pointers;
  }
  return { soFar: merged(before.soFar, () => true), byId, standIns, inStage, held: merged(before.held, isHeld) };
}
