import { Text } from 'react-native';
import { useSync } from '@/device/sync/sync-loop';
import { Page } from '@/ui/page';
import { BringIn } from './bring-in';
import { TakeAlong } from './take-along';

/** The whole library out, and in again. */
export function ArchiveScreen() {
  const online = useSync((state) => state.online);
  return (
    <Page title="Your library as a file">
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
    </Page>
  );
}
