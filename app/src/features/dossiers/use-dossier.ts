import { type CompiledDossier, compileDossier, inOrder } from '@dorvel/core/dossier';
import type { Dossier, DossierEntry } from '@dorvel/core/model';
import { useMemo } from 'react';
import { useItemsById, useStandIns } from '@/device/store/items';
import { useDossierEntries, useDossiers, useHighlights, useNotes } from '@/device/store/library';
import { useFoundByQuery } from '@/device/workers/find/use-find';

export interface OpenDossier {
  dossier: Dossier;
  /** What is in it, in its order. */
  entries: readonly DossierEntry[];
  compiled: CompiledDossier;
}

/** A dossier with all that is in it, as it is now. @returns undefined while it is being read, null when there is none */
export function useDossier(id: string): OpenDossier | null | undefined {
  const dossiers = useDossiers();
  const all = useDossierEntries();
  const byId = useItemsById();
  const standIns = useStandIns();
  const highlights = useHighlights();
  const notes = useNotes();
  const entries = useMemo(() => all && inOrder(all, id), [all, id]);
  const found = useFoundByQuery(queriesOf(entries ?? []));
  const dossier = dossiers?.find((each) => each.id === id);
  return useMemo(() => {
    if (!dossiers || !entries || !highlights || !notes) return undefined;
    if (!dossier) return null;
    const item = (itemId: string) => byId.get(standIns.get(itemId) ?? itemId);
    const marks = new Map(highlights.map((each) => [each.id, each]));
    const written = new Map(notes.map((each) => [each.id, each]));
    const compiled = compileDossier(dossier, entries, {
      item,
      highlight: (highlightId) => marks.get(highlightId),
      note: (noteId) => written.get(noteId),
      found: (query) => found.get(query)?.flatMap((each) => item(each) ?? []) ?? [],
    });
    return { dossier, entries, compiled };
  }, [dossiers, dossier, entries, byId, standIns, highlights, notes, found]);
}

const queriesOf = (entries: readonly DossierEntry[]): string =>
  [
    ...new Set(
      entries.flatMap(({ part, choices }) =>
        part.kind === 'search' ? [choices.text.value.trim().replace(/\s+/g, ' ')] : [],
      ),
    ),
  ]
    .filter(Boolean)
    .join('\n');
