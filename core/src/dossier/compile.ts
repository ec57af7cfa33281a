import type { Dossier, DossierEntry, Highlight, HighlightKind, Item, Note, NotePurpose } from '../model';
import { liveText, noteText } from '../notes';
import { inOrder } from './order';

/** Where what is in a dossier is looked up. */
export interface DossierSources {
  /** The item, or the one that stands for it; undefined when it is not there any more. */
  item(id: string): Item | undefined;
  highlight(id: string): Highlight | undefined;
  note(id: string): Note | undefined;
  /** What a search finds now, best first. */
  found(written: string): readonly Item[];
}

/** One thing of a dossier, with all that is told of it. */
export type CompiledPart = { entryId: string } & (
  | { kind: 'heading'; text: string; depth: 1 | 2 }
  | { kind: 'item'; item: Item }
  | { kind: 'passage'; highlightId: string; words: string; mark: HighlightKind; of: Item }
  | { kind: 'picture'; hash: string; caption: string; of: Item }
  | { kind: 'note'; markdown: string; purpose: NotePurpose }
  | { kind: 'search'; text: string; items: readonly Item[] }
  /** What it stands for is not in the library any more. */
  | { kind: 'gone' }
);

/** A dossier as it is handed on: whatever the format, this is what is in it. */
export interface CompiledDossier {
  id: string;
  title: string;
  introduction: string;
  closing: string;
  lead: string | null;
  parts: CompiledPart[];
}

/** A search in a dossier brings so many. */
export const MAX_FOUND = 20;

/** Looks up all that is in a dossier, in its order. What is not there any more is `gone`; who hands it on leaves it out. */
export function compileDossier(
  dossier: Dossier,
  entries: readonly DossierEntry[],
  sources: DossierSources,
): CompiledDossier {
  const { title, lead } = dossier.choices;
  const { introduction, closing } = dossier.words;
  return {
    id: dossier.id,
    title: title.value,
    introduction: noteText({ versions: introduction }).trim(),
    closing: noteText({ versions: closing }).trim(),
    lead: lead.value,
    parts: inOrder(entries, dossier.id).map((entry) => ({ entryId: entry.id, ...compilePart(entry, sources) })),
  };
}

type Part = CompiledPart extends infer Each ? (Each extends CompiledPart ? Omit<Each, 'entryId'> : never) : never;

function compilePart({ part, choices }: DossierEntry, sources: DossierSources): Part {
  const text = choices.text.value.trim();
  switch (part.kind) {
    case 'heading':
      return { kind: 'heading', text: text || 'Section', depth: choices.nested.value ? 2 : 1 };
    case 'search':
      return { kind: 'search', text, items: text === '' ? [] : sources.found(text).slice(0, MAX_FOUND) };
    case 'note': {
      const markdown = liveText(sources.note(part.noteId));
      return markdown === '' ? { kind: 'gone' } : { kind: 'note', markdown, purpose: choices.purpose.value };
    }
    case 'item': {
      const item = sources.item(part.itemId);
      return item ? { kind: 'item', item } : { kind: 'gone' };
    }
    case 'picture': {
      const of = sources.item(part.itemId);
      return of ? { kind: 'picture', hash: part.hash, caption: text, of } : { kind: 'gone' };
    }
    case 'passage': {
      const highlight = sources.highlight(part.highlightId);
      const of = sources.item(part.itemId);
      if (!of || !highlight || highlight.choices.removed.value) return { kind: 'gone' };
      const { passage, kind } = highlight.choices;
      return { kind: 'passage', highlightId: part.highlightId, words: passage.value.exact, mark: kind.value, of };
    }
  }
}

/** The items that a dossier speaks of, each once, in the order in which they come up. */
export function itemsIn({ parts }: Pick<CompiledDossier, 'parts'>): Item[] {
  const items = parts.flatMap((part): readonly Item[] => {
    if (part.kind === 'item') return [part.item];
    if (part.kind === 'search') return part.items;
    return part.kind === 'passage' || part.kind === 'picture' ? [part.of] : [];
  });
  return [...new Map(items.map((item) => [item.id, item])).values()];
}

/** Those of them that the reader put in: what searches find at the moment is not among them. */
export const chosenItems = ({ parts }: Pick<CompiledDossier, 'parts'>): Item[] =>
  itemsIn({ parts: parts.filter(({ kind }) => kind !== 'search') });
