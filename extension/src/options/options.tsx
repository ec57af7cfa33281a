import { HOW_MUCH_WORDS } from '@dorvel/core/model';
import { StrictMode, useEffect, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { type Settings, storage } from '../background/storage';
import { ask, type ExtensionStatus } from '../messages';
import { Choice, Part } from '../ui/controls';
import { Echoes } from './echoes';
import { LiveMarks } from './live-highlights';
import { NotSent } from './not-sent';
import { PairingPart } from './pairing';
import { SearchPages } from './search-pages';

const STAYS = [
  { value: '5', label: '5 seconds', seconds: 5 },
  { value: '15', label: '15 seconds', seconds: 15 },
  { value: 'open', label: 'Until I close it', seconds: null },
] as const;
const AMOUNTS = ['words-and-pictures', 'words-only', 'whole-page', 'address-only'] as const;

/** With whom the extension is paired, and how it saves. */
function Options() {
  const [status, setStatus] = useState<ExtensionStatus | null>(null);
  const [settings, setSettings] = useState<Settings | null>(null);
  const look = () => void ask('status', null).then(setStatus);
  useEffect(() => {
    look();
    void storage.settings().then(setSettings);
  }, []);
  if (!status || !settings) return <main aria-busy />;
  const change = (part: Partial<Settings>) => {
    const next = { ...settings, ...part };
    setSettings(next);
    void storage.setSettings(next);
  };
  return (
    <main className="mx-auto flex max-w-[600px] flex-col gap-[26px] px-[20px] py-[28px]">
      <h1 className="font-ui text-title font-semibold text-ink">Dorvel in this browser</h1>
      <PairingPart standing={status} changed={look} />
      <NotSent status={status} changed={setStatus} look={look} />
      <Part heading="Saving">
        <Choice
          label="How much a save keeps"
          value={settings.howMuch}
          options={AMOUNTS.map((value) => ({ value, label: HOW_MUCH_WORDS[value] }))}
          onChange={(howMuch) => change({ howMuch })}
        />
        <Choice
          label="The panel stays for"
          value={STAYS.find(({ seconds }) => seconds === settings.staysSeconds)?.value ?? '5'}
          options={STAYS}
          onChange={(chosen) => change({ staysSeconds: STAYS.find(({ value }) => value === chosen)?.seconds ?? null })}
        />
        <p className="font-ui text-small text-soft">
          The button saves, and so does Alt+Shift+S; the browser’s own page of shortcuts can change that. A right click
          saves a link, a picture or what is selected.
        </p>
      </Part>
      <LiveMarks shown={settings.showsMarks} show={(showsMarks) => change({ showsMarks })} />
      <Echoes settings={settings} change={change} />
      <SearchPages searches={settings.searches} keep={(searches) => change({ searches })} />
    </main>
  );
}

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <Options />
    </StrictMode>,
  );
