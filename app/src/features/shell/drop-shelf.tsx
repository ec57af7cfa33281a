import { type DragEvent, useEffect, useState } from 'react';
import { addHighlight } from '@/device/store/changes';
import type { NewEntry } from '@/device/store/dossier-changes';
import { useDossiers } from '@/device/store/library';
import { asEntries, putIn, usePutIn } from '@/features/collecting/put-in-store';

/** What is being dragged: an item by its row, or words of the text that is open. */
type Dragged = { kind: 'item'; itemId: string } | { kind: 'words'; itemId: string; words: string };

const ITEM_LINK = /\/(?:now|inbox|queue|library)\/([0-9a-f-]{36})(?:[?#]|$)/;
/** Others are reached by the sheet. */
const MOST = 6;

/**
 * On a wide screen, while a row or words of a text are dragged: the dossiers that were used last, to be dropped on. By keys and
 * fingers the same is done by “Into a dossier”.
 */
export function DropShelf({ openId }: { openId: string | null }) {
  const dragged = useDragged(openId);
  const dossiers = useDossiers();
  if (!dragged) return null;
  const put = (dossier: { id: string; title: string } | null) => (event: DragEvent) => {
    event.preventDefault();
    void asThings(dragged).then((things) => (dossier ? putIn(dossier, things) : usePutIn.getState().ask(things)));
  };
  return (
    <div className="drop-shelf" role="region" aria-label="Dossiers to drop it on">
      <p>{dragged.kind === 'item' ? 'Drop it on a dossier' : 'Drop the passage on a dossier'}</p>
      {dossiers?.slice(0, MOST).map(({ id, choices }) => (
        <Target key={id} title={choices.title.value} onDrop={put({ id, title: choices.title.value })} />
      ))}
      <Target title="Another…" onDrop={put(null)} />
    </div>
  );
}

function Target({ title, onDrop }: { title: string; onDrop(event: DragEvent): void }) {
  const [over, setOver] = useState(false);
  return (
    // eslint-disable-next-line jsx-a11y/no-static-element-interactions -- what is dropped by a pointer is put in by keys elsewhere
    <div
      className={over ? 'drop-target over' : 'drop-target'}
      onDragEnter={() => setOver(true)}
      onDragLeave={() => setOver(false)}
      onDragOver={(event) => event.preventDefault()}
      onDrop={onDrop}
    >
      {title}
    </div>
  );
}

async function asThings(dragged: Dragged): Promise<NewEntry[]> {
  if (dragged.kind === 'item') return asEntries([dragged.itemId]);
  const { itemId, words } = dragged;
  const highlightId = await addHighlight(itemId, 'key', {
    ...{ exact: words, prefix: '', suffix: '', start: null, copyId: null },
  });
  return [{ kind: 'passage', itemId, highlightId }];
}

function useDragged(openId: string | null): Dragged | null {
  const [dragged, setDragged] = useState<Dragged | null>(null);
  useEffect(() => {
    const start = ({ target }: globalThis.DragEvent) => {
      const found = draggedFrom(target, openId);
      // The browser takes the picture of what is dragged first, and what changes under it ends the drag.
      if (found) setTimeout(() => setDragged(found));
    };
    const end = () => setDragged(null);
    addEventListener('dragstart', start);
    addEventListener('dragend', end);
    addEventListener('drop', end);
    return () => {
      removeEventListener('dragstart', start);
      removeEventListener('dragend', end);
      removeEventListener('drop', end);
    };
  }, [openId]);
  return dragged;
}

function draggedFrom(target: EventTarget | null, openId: string | null): Dragged | null {
  const words = getSelection()?.toString().trim() ?? '';
  const element = target instanceof Element ? target : target instanceof Node ? target.parentElement : null;
  if (openId !== null && words !== '' && element?.closest('.article')) return { kind: 'words', itemId: openId, words };
  const link = element?.closest('a[href]') ?? element?.querySelector('a[href]');
  const itemId = ITEM_LINK.exec(link?.getAttribute('href') ?? '')?.[1];
  return itemId === undefined ? null : { kind: 'item', itemId };
}
