import { ScrollView, Text } from 'react-native';
import { useSync } from '@/device/sync/sync-loop';
import { ScreenHeader } from '@/ui/screen-header';
import { BringIn } from './bring-in';
import { TakeAlong } from './take-along';

/** The whole library out, and in again. */
export function ArchiveScreen() {
  const online = useSync((state) => state.online);
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[640px] gap-[26px] px-[20px] pb-[40px]"
    >
      <ScreenHeader title="Your library as a file" />
      {online ? (
        <>
          <TakeAlong />
          <BringIn />
        </>
      ) : (
        <Text className="font-ui text-base text-soft">
          It is made and read on your server: this needs a connection. What is on this device stays as it is meanwhile.
        </Text>
      )}
    </ScrollView>
  );
}
