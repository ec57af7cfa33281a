import { useState } from 'react';
import { EVERYWHERE, readHost, requestPages } from '../background/page-scripts';
import type { Settings } from '../background/storage';
import { Button, Choice, Field, Part } from '../ui/controls';

const WHERE = [
  { value: 'none', label: 'On no page' },
  { value: 'these', label: 'On these sites' },
  { value: 'all', label: 'On all pages' },
] as const;
const HOW_MANY = [
  { value: 'few', label: 'Few' },
  { value: 'more', label: 'More' },
] as const;

interface EchoesProps {
  settings: Settings;
  change(part: Partial<Settings>): void;
}

/** Whether names and terms of pages that stand in the library are marked there. Off until the reader says so. */
export function Echoes({ settings, change }: EchoesProps) {
  const { echoesOn, echoSites, echoesNotOn, echoDensity } = settings;
  const [fault, setFault] = useState<string | null>(null);
  const choose = async (on: Settings['echoesOn']) => {
    const isGranted = on !== 'all' || (await requestPages(EVERYWHERE));
    setFault(isGranted ? null : 'Without that permission nothing can be marked on all pages.');
    if (isGranted) change({ echoesOn: on });
  };
  return (
    <Part heading="Echoes on the pages themselves">
      <p className="font-ui text-base text-ink">
        Names and terms of a page that stand in your library too can be marked on it: a press shows where.
      </p>
      <p className="font-ui text-small text-soft">
        They are worked out in this browser, from what your items speak of, which it fetches from your own server every
        quarter of an hour. No word and no address of a page is told to anybody.
      </p>
      <Choice label="Echoes are shown" value={echoesOn} options={WHERE} onChange={(on) => void choose(on)} />
      {fault !== null && (
        <p role="alert" className="font-ui text-small text-brick">
          {fault}
        </p>
      )}
      {echoesOn !== 'none' && (
        <Choice
          label="How many"
          value={echoDensity}
          options={HOW_MANY}
          onChange={(density) => change({ echoDensity: density })}
        />
      )}
      {echoesOn === 'these' && <Sites sites={echoSites} keep={(sites) => change({ echoSites: sites })} />}
      {echoesOn !== 'none' && echoesNotOn.length > 0 && (
        <HostList
          label="Never on"
          hosts={echoesNotOn}
          drop={(host) => change({ echoesNotOn: echoesNotOn.filter((other) => other !== host) })}
          verb="Show again on"
        />
      )}
    </Part>
  );
}

function Sites({ sites, keep }: { sites: readonly string[]; keep(sites: string[]): void }) {
  const [written, setWritten] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const add = async () => {
    const host = readHost(written);
    if (host === null) {
      setFault('Write the name of a site: example.org');
      return;
    }
    if (!(await requestPages([`*://${host}/*`]))) {
      setFault('Without that permission nothing can be marked there.');
      return;
    }
    setFault(null);
    setWritten('');
    keep([...new Set([...sites, host])]);
  };
  return (
    <>
      <HostList
        label="Sites"
        hosts={sites}
        drop={(host) => keep(sites.filter((other) => other !== host))}
        verb="Leave out"
      />
      <Field label="Site" value={written} onChange={setWritten} fault={fault} />
      <div>
        <Button label="Show them there" onPress={() => void add()} />
      </div>
    </>
  );
}

interface HostListProps {
  label: string;
  hosts: readonly string[];
  verb: string;
  drop(host: string): void;
}

function HostList({ label, hosts, verb, drop }: HostListProps) {
  if (hosts.length === 0) return null;
  return (
    <ul aria-label={label} className="flex flex-col">
      {hosts.map((host) => (
        <li key={host} className="flex items-center justify-between gap-[10px] border-b border-line py-[8px]">
          <span className="min-w-0 flex-1 break-all font-ui text-base text-ink">{host}</span>
          <Button label={verb} name={`${verb} ${host}`} kind="loss" onPress={() => drop(host)} />
        </li>
      ))}
    </ul>
  );
}
