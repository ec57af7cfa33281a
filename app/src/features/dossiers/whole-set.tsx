import { isOnWeb } from '@dorvel/core/address';
import { ServerProblem, Unreachable } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { useRef, useState } from 'react';
import { Linking, Text, View } from 'react-native';
import { keepCopy } from '@/device/cache/downloads';
import { useAccount } from '@/device/store/account';
import { fetchAgain } from '@/device/store/changes';
import { useKeptCopies } from '@/device/store/library';
import { moves } from '@/features/items/moves';
import { Button } from '@/ui/button';
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
    show({ text: `${onWeb.length} pages are fetched again. What has changed shows under “Copies” of each.` });
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
        <Button label={`Fetch ${onWeb.length} again`} disabled={onWeb.length === 0} onPress={() => void lookAgain()} />
      </View>
    </Sheet>
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
