import { Text, View } from 'react-native';
import { isWantedHere } from '@/device/cache/downloads';
import { useItems } from '@/device/store/items';
import { useKeptCopies } from '@/device/store/kept-copies';
import { useKeptBytes, useWaitingCount } from '@/device/store/library';
import { SectionHeading } from '@/ui/section-heading';

/** What is on this device and the room it takes. */
export function DeviceSpace() {
  const kept = useKeptCopies();
  const bytes = useKeptBytes();
  const items = useItems();
  const waiting = useWaitingCount();
  if (!kept || bytes === undefined || !items) return null;
  const missing = items.filter((item) => isWantedHere(item) && !kept.has(item.capture.page?.copyId ?? '')).length;
  return (
    <View className="gap-[6px]">
      <SectionHeading>On this device</SectionHeading>
      <Text className="font-ui text-base text-ink">
        {kept.size} {kept.size === 1 ? 'article' : 'articles'} with their pictures, {inMegabytes(bytes)}.
        {missing > 0 ? ` ${missing} more of Inbox and Queue are still to come.` : ' All of Inbox and Queue is here.'}
      </Text>
      <Text className="font-ui text-base text-ink">
        {waiting === 0
          ? 'Every change has been sent.'
          : `${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'} to be sent.`}
      </Text>
    </View>
  );
}

function inMegabytes(bytes: number): string {
  return `${(bytes / 1_000_000).toLocaleString('en', { maximumFractionDigits: 1 })} MB`;
}
