import { Choice } from '@/ui/choice';
import { Setting } from '@/ui/setting';
import { useFromMemorySettings } from './from-memory-store';

const FRESH = [0, 5, 10, 20, 50];
const REPEATED = [20, 50, 100, 200, 1000];

/** How much a day asks from memory at most. */
export function Limits() {
  const { fresh, repeated, change } = useFromMemorySettings();
  return (
    <>
      <Setting label="New cards a day, at most">
        <Choice
          oneLine
          name="New cards a day, at most"
          value={String(fresh)}
          onChange={(value) => change({ fresh: Number(value) })}
          options={FRESH.map((value) => ({ value: String(value), label: String(value) }))}
        />
      </Setting>
      <Setting label="Reviews a day, at most">
        <Choice
          oneLine
          name="Reviews a day, at most"
          value={String(repeated)}
          onChange={(value) => change({ repeated: Number(value) })}
          options={REPEATED.map((value) => ({ value: String(value), label: String(value) }))}
        />
      </Setting>
    </>
  );
}
