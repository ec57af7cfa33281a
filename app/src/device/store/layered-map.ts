/** Beyond so many changes a map is made anew, so that looking something up stays as quick as it was. */
const MOST_CHANGES = 300;

/**
 * A map that never changes, and of which another with a few changes is made without copying all of it: ten thousand items are not
 * gone through for one.
 */
export class LayeredMap<Key, Value> implements ReadonlyMap<Key, Value> {
  readonly #base: ReadonlyMap<Key, Value>;
  /** What is otherwise than in the base; undefined where it is not any more. */
  readonly #changes: ReadonlyMap<Key, Value | undefined>;
  readonly size: number;

  private constructor(base: ReadonlyMap<Key, Value>, changes: ReadonlyMap<Key, Value | undefined>, size: number) {
    this.#base = base;
    this.#changes = changes;
    this.size = size;
  }

  /** @param map is not changed afterwards by who made it */
  static of<Key, Value>(map: ReadonlyMap<Key, Value>): LayeredMap<Key, Value> {
    return map instanceof LayeredMap
      ? (map as LayeredMap<Key, Value>)
      : new LayeredMap<Key, Value>(map, new Map(), map.size);
  }

  /** @param changes values by key; undefined for what goes. @returns a map that has them; this one stays as it is */
  with(changes: Iterable<readonly [Key, Value | undefined]>): LayeredMap<Key, Value> {
    const all = new Map(this.#changes);
    let { size } = this;
    for (const [key, value] of changes) {
      const had = all.has(key) ? all.get(key) !== undefined : this.#base.has(key);
      size += Number(value !== undefined) - Number(had);
      all.set(key, value);
    }
    const next = new LayeredMap(this.#base, all, size);
    return all.size <= MOST_CHANGES ? next : LayeredMap.of(new Map(next));
  }

  get(key: Key): Value | undefined {
    return this.#changes.has(key) ? this.#changes.get(key) : this.#base.get(key);
  }

  has(key: Key): boolean {
    return this.get(key) !== undefined;
  }

  *entries(): MapIterator<[Key, Value]> {
    for (const [key, value] of this.#base) if (!this.#changes.has(key)) yield [key, value];
    for (const [key, value] of this.#changes) if (value !== undefined) yield [key, value];
    return undefined;
  }

  *keys(): MapIterator<Key> {
    for (const [key] of this.entries()) yield key;
    return undefined;
  }

  *values(): MapIterator<Value> {
    for (const [, value] of this.entries()) yield value;
    return undefined;
  }

  [Symbol.iterator](): MapIterator<[Key, Value]> {
    return this.entries();
  }

  forEach(call: (value: Value, key: Key, map: ReadonlyMap<Key, Value>) => void): void {
    for (const [key, value] of this.entries()) call(value, key, this);
  }
}
