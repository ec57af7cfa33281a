import { isOnWeb } from '@dorvel/core/address';
import { ServerProblem, Unreachable } from '@dorvel/core/client';
import { readingPlan } from '@dorvel/core/dossier';
import type { Item } from '@dorvel/core/model';
import { dayInWords } from '@dorvel/core/wording';
import { useMemo, useRef, useState } from 'react';
import { Linking, Text, View } from 'react-native';
import { keepCopy } from '@/device/cache/downloads';
import { useAccount } from '@/device/store/account';
import { fetchAgain } from '@/device/store/changes';
import { useToday } from '@/device/store/day';
import { useKeptCopies } from '@/device/store/kept-copies';
import { moves } from '@/features/items/moves';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';

/** More pages than these are opened only when the reader says so once more. */
const MANY = 10;

/** What can be done with all items of a dossier at once. */
export function WholeSet({ items, onClose }: { items: readonly Item[]; onClose(): void }) {
  const onWeb = items.filter(({ address }) => isOnWeb(address));
  const unqueued = items.filter(({ choices }) => choices.stage.value !== 'queue');
  const [sure, setSure] = useState(false);
  const show = useNotices((state) => state.show);
  const openAll = () => {
    if (onWeb.length > MANY && !sure) {
      setSure(true);
      return;
    }
    onClose();
    for (const { address } of onWeb) void Linking.openURL(address);
  };
  const lookAgain = async () => {
    onClose();
    for (const { id } of onWeb) await fetchAgain(id);
    show({ text: `${onWeb.length} pages are fetched again. What has changed is told at the top of the dossier.` });
  };
  return (
    <Sheet title={`With all ${items.length}`} onClose={onClose}>
      <View className="gap-[10px]">
        <Button
          label={sure ? `Yes, open ${onWeb.length} pages in the browser` : `Open all ${onWeb.length} in the browser`}
          disabled={onWeb.length === 0}
          onPress={openAll}
        />
        <Button
          label={unqueued.length === 0 ? 'All are in the Queue' : `Queue ${unqueued.length}`}
          disabled={unqueued.length === 0}
          onPress={() => {
            onClose();
            void moves.moveAll(unqueued, 'queue');
          }}
        />
        <KeepOffline items={items} />
        <Planned items={items} onDone={onClose} />
        <Button label={`Fetch ${onWeb.length} again`} disabled={onWeb.length === 0} onPress={() => void lookAgain()} />
      </View>
    </Sheet>
  );
}

const MINUTES_A_DAY = [10, 20, 30, 60].map((minutes) => ({ value: minutes, label: `${minutes} min` }));

/** What is left of it, spread over days: each item comes back on its day. */
function Planned({ items, onDone }: { items: readonly Item[]; onDone(): void }) {
  const today = useToday();
  const [minutes, setMinutes] = useState<number>(20);
  const plan = useMemo(() => readingPlan(items, today, minutes), [items, today, minutes]);
  const last = plan.at(-1)?.day;
  if (last === undefined) return null;
  const days = new Set(plan.map(({ day }) => day)).size;
  return (
    <View role="group" aria-label="Read it over days" className="gap-[8px] border-t border-line pt-[12px]">
      <Text className="font-ui text-small font-semibold text-soft">Read it over days</Text>
      <Choice
        name="Minutes a day"
        options={MINUTES_A_DAY}
        value={minutes}
        onChange={(chosen) => setMinutes(chosen)}
        oneLine
      />
      <Text role="status" className="font-ui text-small text-soft">
        {days === 1
          ? 'All of it fits into today.'
          : `${plan.length} items over ${days} days, until ${dayInWords(last)}. Each comes back on its day.`}
      </Text>
      <Button
        label="Plan it so"
        onPress={() => {
          onDone();
          void moves.planAll(plan, days);
        }}
      />
    </View>
  );
}

/** Brings all texts and their pictures to this device, one after the other; what has come stays when it is stopped. */
function KeepOffline({ items }: { items: readonly Item[] }) {
  const store = useAccount((state) => state.store);
  const kept = useKeptCopies();
  const [says, setSays] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const wanted = useRef(false);
  const isWanted = () => wanted.current;
  const missing = items.filter(({ capture }) => capture.page?.copyId && kept && !kept.has(capture.page.copyId));
  const bring = async () => {
    wanted.current = true;
    setBusy(true);
    for (const [n, item] of missing.entries()) {
      if (!isWanted()) break;
      setSays(`${n + 1} of ${missing.length}…`);
      const copyId = item.capture.page?.copyId;
      try {
        if (store && copyId) await keepCopy(store, item, copyId);
      } catch (error) {
        if (!(error instanceof ServerProblem || error instanceof Unreachable)) throw error;
        setSays(`Stopped at ${n + 1} of ${missing.length}: ${error.message}`);
        setBusy(false);
        return;
      }
    }
    setSays(null);
    setBusy(false);
  };
  return (
    <View className="gap-[6px]">
      <Button
        label={
          busy
            ? 'Stop'
            : missing.length === 0
              ? 'All texts are on this device'
              : `Bring ${missing.length} to this device`
        }
        disabled={!busy && missing.length === 0}
        onPress={() => {
          if (busy) wanted.current = false;
          else void bring();
        }}
      />
      {says !== null && (
        <Text role="status" className="font-ui text-small text-soft">
          {says}
        </Text>
      )}
    </View>
  );
}
