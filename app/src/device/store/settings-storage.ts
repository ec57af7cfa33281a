import type { z } from 'zod';

const PREFIX = 'dorvel.';

/** A small setting of this device. What is missing or unreadable is the default. */
export function readSetting<Schema extends z.ZodType>(
  name: string,
  schema: Schema,
  otherwise: z.infer<Schema>,
): z.infer<Schema> {
  const stored = localStorage.getItem(PREFIX + name);
  if (stored === null) return otherwise;
  try {
    const parsed = schema.safeParse(JSON.parse(stored));
    return parsed.success ? parsed.data : otherwise;
  } catch {
    // Not JSON: written by nobody we know, so as good as missing.
    return otherwise;
  }
}

export function writeSetting(name: string, value: unknown): void {
  localStorage.setItem(PREFIX + name, JSON.stringify(value));
}
