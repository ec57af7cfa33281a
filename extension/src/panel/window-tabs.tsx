import { format } from 'date-fns/format';
import { useEffect, useState } from 'react';
import type { Batch } from '../background/save';
import { ask } from '../messages';
import { Button, Part } from '../ui/controls';
import { IntoDossier } from './into-dossier';
import { useKnown } from './use-known';

/** All that was saved, into one dossier. What there is of these is known when one of them has arrived at the server. */
function AllIntoDossier({ itemIds }: { itemIds: readonly string[] }) {
  const { known } = useKnown(itemIds[0] ?? '');
  if (!known?.ok) return null;
  const parts = itemIds.map((itemId) => ({ kind: 'item' as const, itemId }));
  return <IntoDossier dossiers={known.answer.dossiers} parts={parts} />;
}

/** Every tab of the window at once: each an item of its own, or all under one tag. */
export function WindowTabs() {
  const [batch, setBatch] = useState<Batch | null>(null);
  const [isOpen, setOpen] = useState(false);
  const [count, setCount] = useState(0);
  const [together, setTogether] = useState(false);
  const [undone, setUndone] = useState(false);
  const running = batch !== null && batch.done < batch.of && !batch.stopped;
  useEffect(() => {
    void chrome.tabs
      .query({ currentWindow: true })
      .then((tabs) => setCount(tabs.filter(({ url }) => /^https?:/.test(url ?? '')).length));
    // A panel that was closed in the middle of it finds it again.
    void ask('batch', null).then((last) => {
      if (!last || last.done === last.of || last.stopped) return;
      setBatch(last);
      setOpen(true);
    });
  }, []);
  useEffect(() => {
    if (!running) return undefined;
    // Until it has begun there is none, which is no answer to how far it is.
    const look = () => ask('batch', null).then((now) => now && setBatch(now));
    const timer = setInterval(() => void look(), 300);
    return () => clearInterval(timer);
  }, [running]);
  const begin = async () => {
    const { id } = await chrome.windows.getCurrent();
    if (id === undefined) return;
    const tag = together ? `tabs/${format(new Date(), 'yyyy-MM-dd HH.mm')}` : null;
    setBatch({ done: 0, of: count, itemIds: [], failed: [], tag, stopped: false });
    setBatch(await ask('saveWindow', { windowId: id, tag }));
  };
  const undo = async () => {
    if (!batch) return;
    await ask('letGo', { itemIds: batch.itemIds });
    setUndone(true);
  };
  if (count < 2 && batch === null) return null;
  if (!isOpen) return <Button label={`Save all ${count} tabs of this window`} onPress={() => setOpen(true)} />;
  if (batch === null)
    return (
      <Part heading={`All ${count} tabs of this window`}>
        <label className="flex min-h-[44px] items-center gap-[10px] font-ui text-base text-ink">
          <input
            type="checkbox"
            checked={together}
            onChange={({ target }) => setTogether(target.checked)}
            className="h-[22px] w-[22px] accent-accent"
          />
          As one batch, under a tag of its own
        </label>
        <Button label={`Save ${count} tabs`} kind="main" onPress={() => void begin()} />
      </Part>
    );
  return (
    <Part heading={batch.tag === null ? 'Tabs of this window' : `Tabs of this window, under ${batch.tag}`}>
      <progress aria-label="Tabs saved" value={batch.done} max={batch.of} className="h-[8px] w-full accent-accent" />
      <p role="status" className="font-ui text-base text-ink">
        {undone
          ? 'All of them are let go. They can be brought back for 30 days.'
          : running
            ? `Saving ${batch.done} of ${batch.of}…`
            : `${batch.itemIds.length} of ${batch.of} saved${batch.stopped ? ', then stopped' : ''}.`}
      </p>
      {batch.failed.map(({ title, says }) => (
        <p key={title} className="font-ui text-small text-brick">
          {title}: {says}
        </p>
      ))}
      {!running && !undone && <AllIntoDossier itemIds={batch.itemIds} />}
      {running ? (
        <Button label="Stop" onPress={() => void ask('stopWindow', null)} />
      ) : (
        !undone && <Button label="Undo all" onPress={() => void undo()} />
      )}
    </Part>
  );
}
