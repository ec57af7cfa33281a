/** Gives names numbers from 0 on, so that what is known of them can stand in arrays. */
export interface Numbering {
  /** How many names have a number now. */
  readonly size: number;
  /** The number of a name; null when it has none. */
  of(name: string): number | null;
  /** The number of a name, a new one (the smallest that is free, or the next) when it has none. */
  take(name: string): number;
  /** Gives a name's number up, for another to take. */
  free(name: string): void;
  /** The name that has a number; empty when none has. */
  nameOf(number: number): string;
}

export function createNumbering(): Numbering {
  const numbers = new Map<string, number>();
  const names: string[] = [];
  const left: number[] = [];
  return {
    get size() {
      return numbers.size;
    },
    of: (name) => numbers.get(name) ?? null,
    take(name) {
      const known = numbers.get(name);
      if (known !== undefined) return known;
      const number = left.pop() ?? names.length;
      numbers.set(name, number);
      names[number] = name;
      return number;
    },
    free(name) {
      const number = numbers.get(name);
      if (number === undefined) return;
      numbers.delete(name);
      names[number] = '';
      left.push(number);
    },
    nameOf: (number) => names[number] ?? '',
  };
}
