import type { EntryPart, KnownPage } from '@dorvel/core/model';
import type { EntryMutation } from '@dorvel/core/records';
import { useState } from 'react';
import { ask } from '../messages';
import { Button, Choice, Part } from '../ui/controls';

interface IntoDossierProps {
  dossiers: KnownPage['dossiers'];
  parts: readonly EntryPart[];
}

/** Puts what was saved into a dossier: the one that was worked on last by one press, or another. */
export function IntoDossier({ dossiers, parts }: IntoDossierProps) {
  const [chosen, setChosen] = useState(dossiers[0]?.id ?? '');
  const [made, setMade] = useState<{ into: string; entries: EntryMutation[] } | null>(null);
  const dossier = dossiers.find(({ id }) => id === chosen);
  if (!dossier || parts.length === 0) return null;
  const put = async () => {
    const entries = await ask('putIn', { dossierId: dossier.id, end: dossier.end, parts: [...parts] });
    if (entries) setMade({ into: dossier.title, entries });
  };
  const takeOut = async () => {
    if (made) await ask('takeOut', { entries: made.entries });
    setMade(null);
  };
  return (
    <Part heading="Dossier">
      {made ? (
        <div className="flex items-center justify-between gap-[10px]">
          <p role="status" className="min-w-0 flex-1 font-ui text-base text-ink">
            In “{made.into}”.
          </p>
          <Button label="Take it out" onPress={() => void takeOut()} />
        </div>
      ) : (
        <div className="flex items-end gap-[10px]">
          <Choice
            label="Which"
            value={chosen}
            options={dossiers.map(({ id, title }) => ({ value: id, label: title }))}
            onChange={(id) => setChosen(id)}
          />
          <Button label="Put it in" onPress={() => void put()} />
        </div>
      )}
    </Part>
  );
}
