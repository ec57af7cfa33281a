import { StrictMode, useEffect, useRef, useState } from 'react';
import { createRoot } from 'react-dom/client';
import type { Saved } from '../background/save';
import { ask, type ExtensionStatus } from '../messages';
import { Button } from '../ui/controls';
import { Footer } from './footer';
import { SavedPage } from './saved-page';
import { useClosing } from './use-closing';
import { WindowTabs } from './window-tabs';

/** What the panel opened on: the tab before it, unless a menu has just saved something. */
interface Opened {
  saved: Saved;
  /** Of a page it can be said how much of it is kept: it can be taken again. */
  tabId: number | null;
  what: string;
}

/** Saves at once, says so, and offers what can be changed about it. */
function Panel() {
  const [status, setStatus] = useState<ExtensionStatus | null>(null);
  const [opened, setOpened] = useState<Opened | null>(null);
  const began = useRef(false);
  const closing = useClosing(opened?.saved.ok === true);
  const look = () => void ask('status', null).then(setStatus);
  useEffect(() => {
    if (began.current) return;
    began.current = true;
    void open().then(({ standing: now, opened: what }) => {
      setStatus(now);
      setOpened(what);
    });
  }, []);
  if (!status) return <main className="min-h-[120px]" aria-busy />;
  if (!status.account || status.revoked) return <NotPaired revoked={status.revoked} />;
  return (
    <main className="flex flex-col gap-[16px] p-[16px]">
      {opened === null ? (
        <p role="status" className="font-ui text-base text-soft">
          Saving…
        </p>
      ) : opened.saved.ok ? (
        <SavedPage saved={opened.saved} what={opened.what} tabId={opened.tabId} changed={look} />
      ) : (
        <div role="alert" className="flex flex-col gap-[6px]">
          <h1 className="font-ui text-head font-semibold text-brick">Not saved</h1>
          <p className="font-ui text-base text-ink">{opened.saved.says}</p>
        </div>
      )}
      <WindowTabs />
      <Footer standing={status} closesIn={closing} />
    </main>
  );
}

async function open(): Promise<{ standing: ExtensionStatus; opened: Opened | null }> {
  const status = await ask('status', null);
  if (!status.account || status.revoked) return { standing: status, opened: null };
  const just = await ask('justSaved', null);
  if (just) return { standing: status, opened: { ...just, tabId: null } };
  const named = new URLSearchParams(location.search).get('tab');
  const [active] = await chrome.tabs.query({ active: true, currentWindow: true });
  const tabId = named === null ? active?.id : Number(named);
  if (tabId === undefined)
    return {
      standing: status,
      opened: { saved: { ok: false, says: 'There is no page here.' }, tabId: null, what: 'page' },
    };
  return { standing: status, opened: { saved: await ask('saveTab', { tabId }), tabId, what: 'page' } };
}

function NotPaired({ revoked }: { revoked: boolean }) {
  return (
    <main className="flex flex-col items-start gap-[12px] p-[16px]">
      <h1 className="font-ui text-head font-semibold text-ink">
        {revoked ? 'The pairing was revoked' : 'Pair it with your library first'}
      </h1>
      <p className="font-ui text-base text-ink">
        {revoked
          ? 'What waits here is kept, and sent when you pair it with the same library again.'
          : 'Once, with a code that Dorvel makes for you. Then a press on this button saves the page before you.'}
      </p>
      <Button label="Pair it" kind="main" onPress={() => void chrome.runtime.openOptionsPage()} />
    </main>
  );
}

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <Panel />
    </StrictMode>,
  );
