import type { Scope } from '@dorvel/core/model';
import { create } from 'zustand';

interface FindState {
  /** The query as it is written; empty when nothing is looked for. */
  written: string;
  /** Its last word may be the beginning of one. */
  typing: boolean;
  scope: Scope;
  write(written: string): void;
  /** The query is complete as it stands. */
  settle(): void;
  lookIn(scope: Scope): void;
  /** Puts a filter into the query, or takes it out. */
  toggle(filter: string): void;
}

/** What the reader is looking for in the Library. */
export const useFindQuery = create<FindState>()((set) => ({
  written: '',
  typing: true,
  scope: 'all',
  write: (written) => set({ written, typing: true }),
  settle: () => set({ typing: false }),
  lookIn: (scope) => set({ scope }),
  toggle: (filter) => set(({ written }) => ({ written: withToggled(written, filter), typing: false })),
}));

/** True when a query has a filter. */
export function hasFilter(written: string, filter: string): boolean {
  return tokens(written).includes(filter);
}

/** A query with a filter put in at its end, or taken out. A space behind it lets the reader go on typing. */
export function withToggled(written: string, filter: string): string {
  const parts = tokens(written);
  const others = parts.filter((part) => part !== filter);
  return (others.length < parts.length ? others : [...parts, filter]).map((part) => `${part} `).join('');
}

/** "tag:tides", or with quotation marks where the tag has spaces. */
export function tagFilter(tag: string): string {
  return /\s/.test(tag) ? `tag:"${tag}"` : `tag:${tag}`;
}

function tokens(written: string): string[] {
  return written.match(/[^\s"]*"[^"]*"?|\S+/g) ?? [];
}
