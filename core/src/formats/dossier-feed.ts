import type { CompiledPart } from '../dossier';
import type { DossierEntry } from '../model';
import { PURPOSE_WORDS, sourceOf, titleOf } from '../wording';
import { type HandedOn, oneLine, shownParts, sourceLine, webAddress } from './dossier-handed-on';
import type { FeedEntryOut, FeedOut } from './feed-write';

const MOST = 50;

/** What was put into a dossier, as a feed tells it, the latest first. */
export function dossierFeed(
  { compiled, owner, updatedAt }: HandedOn,
  entries: readonly Pick<DossierEntry, 'id' | 'madeAt'>[],
  { address, home }: { address: string; home: string },
): FeedOut {
  const madeAt = new Map(entries.map((entry) => [entry.id, entry.madeAt]));
  return {
    title: oneLine(compiled.title),
    author: oneLine(owner ?? 'Dorvel'),
    address,
    home,
    updatedAt,
    entries: shownParts(compiled)
      .flatMap((part) => {
        const said = tell(part);
        const at = madeAt.get(part.entryId) ?? updatedAt;
        return said ? [{ id: `urn:uuid:${part.entryId}`, at, ...said }] : [];
      })
      .sort((a, b) => b.at - a.at)
      .slice(0, MOST),
  };
}

function tell(part: CompiledPart): Pick<FeedEntryOut, 'title' | 'href' | 'summary'> | null {
  switch (part.kind) {
    case 'item':
      return { title: oneLine(titleOf(part.item)), href: webAddress(part.item), summary: oneLine(sourceOf(part.item)) };
    case 'passage':
      return { title: `From ${oneLine(sourceLine(part.of))}`, href: webAddress(part.of), summary: `“${part.words}”` };
    case 'picture':
      return {
        title: oneLine(part.caption) || 'A picture',
        href: webAddress(part.of),
        summary: oneLine(sourceLine(part.of)),
      };
    case 'note':
      return { title: PURPOSE_WORDS[part.purpose], href: null, summary: part.markdown };
    case 'heading':
    case 'search':
    case 'gone':
      return null;
  }
}
