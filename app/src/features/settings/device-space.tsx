import { Text, View } from 'react-native';
import { isWantedHere } from '@/device/cache/downloads';
import { useItems } from '@/device/store/items';
import { useKeptCopies } from '@/device/store/kept-copies';
import { useKeptBytes, useWaitingCount } from '@/device/store/library';
import { ROOMS, useRoom } from '@/device/store/room';
import { syncSoon } from '@/device/sync/sync-loop';
import { Choice } from '@/ui/choice';

/** As a value among others. */
const ALL = 0;

/** What is on this device, the room it takes, and how much it may take. */
export function DeviceSpace() {
  const kept = useKeptCopies();
  const bytes = useKeptBytes();
  const items = useItems();
  const waiting = useWaitingCount();
  const room = useRoom();
  const { isDeviceFull } = room;
  if (!kept || bytes === undefined || !items) return null;
  const missing = items.filter((item) => isWantedHere(item) && !kept.has(item.capture.page?.copyId ?? '')).length;
  const isShort = isDeviceFull || (room.megabytes !== null && bytes > 0.9 * room.megabytes * 1_000_000);
  const give = (megabytes: number) => {
    room.give(megabytes === ALL ? null : megabytes);
    syncSoon();
  };
  return (
    <View className="gap-[6px]">
      <Text className="font-ui text-base text-ink">
        {kept.size} {kept.size === 1 ? 'article' : 'articles'} with their pictures, {inMegabytes(bytes)}.
        {missing === 0
          ? ' All of Inbox and Queue is here.'
          : isShort
            ? ` ${missing} more of Inbox and Queue have no room.`
            : ` ${missing} more of Inbox and Queue are still to come.`}
      </Text>
      <Text className="font-ui text-base text-ink">
        {waiting === 0
          ? 'Every change has been sent.'
          : `${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'} to be sent.`}
      </Text>
      {isDeviceFull && (
        <Text role="alert" className="font-ui text-base text-brick">
          This device has no more room. What is least likely to be read here was left on the server; nothing is lost.
        </Text>
      )}
      <Text className="pt-[6px] font-ui text-base text-ink">Texts and pictures may take up to:</Text>
      <Choice
        name="Room for texts and pictures"
        value={room.megabytes ?? ALL}
        onChange={give}
        options={ROOMS.map((each) => ({ value: each ?? ALL, label: roomWords(each) }))}
      />
      <Text className="font-ui text-small text-soft">
        When it is used up, earlier copies go first, then what was finished long ago. It stays on the server, and is
        read and found there while you are online.
      </Text>
    </View>
  );
}

const roomWords = (megabytes: number | null): string =>
  megabytes === null ? 'All there is' : megabytes < 1000 ? `${megabytes} MB` : `${megabytes / 1000} GB`;

function inMegabytes(bytes: number): string {
  return `${(bytes / 1_000_000).toLocaleString('en', { maximumFractionDigits: 1 })} MB`;
}
