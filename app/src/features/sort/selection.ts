/** What is selected in a table, and where the next step begins from. */
export interface Selection {
  chosen: ReadonlySet<string>;
  /** The row that the keys are at. */
  at: string | null;
  /** The row from which a range is drawn. */
  from: string | null;
}

export const NOTHING_SELECTED: Selection = { chosen: new Set(), at: null, from: null };

/** How a row is reached: by itself, beside what is selected (Control, Space, the box), or as the end of a range (Shift). */
export type Reach = 'only' | 'toggle' | 'range' | 'look';

/**
 * What is selected after a row was reached, as lists with multiple selection work (WAI-ARIA Authoring Practices, Listbox
 * and Grid patterns).
 *
 * @param ids all rows in their order
 */
export function reach(selection: Selection, ids: readonly string[], id: string, how: Reach): Selection {
  if (how === 'look') return { ...selection, at: id };
  if (how === 'only') return { chosen: new Set([id]), at: id, from: id };
  if (how === 'toggle') {
    const chosen = new Set(selection.chosen);
    if (!chosen.delete(id)) chosen.add(id);
    return { chosen, at: id, from: id };
  }
  const from = ids.indexOf(selection.from ?? selection.at ?? id);
  const to = ids.indexOf(id);
  const [first, last] = [Math.max(0, Math.min(from, to)), Math.max(from, to)];
  return { chosen: new Set(ids.slice(first, last + 1)), at: id, from: ids[Math.max(0, from)] ?? id };
}

/** What is left of a selection when rows have gone; the keys go to the row that took their place. */
export function withoutGone(selection: Selection, before: readonly string[], ids: readonly string[]): Selection {
  const here = new Set(ids);
  const chosen = new Set([...selection.chosen].filter((id) => here.has(id)));
  const place = before.indexOf(selection.at ?? '');
  const at =
    selection.at === null || here.has(selection.at)
      ? selection.at
      : (before.slice(place).find((id) => here.has(id)) ?? ids.at(-1) ?? null);
  return { chosen, at, from: selection.from !== null && here.has(selection.from) ? selection.from : at };
}
