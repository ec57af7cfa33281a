import { changeWords } from '@dorvel/core/wording';
import { Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { useSetAside } from '@/device/store/library';
import { syncSoon } from '@/device/sync/sync-loop';
import { Button } from '@/ui/button';
import { SectionHeading } from '@/ui/section-heading';
import { SureButton } from '@/ui/sure-button';

/** Changes that the server would not take, each with its reason. Nothing waits for them, and none is dropped. */
export function NotTaken() {
  const aside = useSetAside();
  const store = useAccount((state) => state.store);
  if (!store || aside.length === 0) return null;
  return (
    <View role="region" aria-label="Not taken by the server" className="gap-[10px]">
      <SectionHeading>Not taken by the server</SectionHeading>
      <Text className="font-ui text-small text-soft">
        These stand on this device and nowhere else. What you did since has been sent.
      </Text>
      {aside.map((each) => {
        const words = changeWords(each.mutation);
        return (
          <View key={each.id} className="gap-[6px] rounded-[16px] border border-line bg-raised p-[14px]">
            <Text className="break-words font-ui text-base text-ink" numberOfLines={3}>
              {words}
            </Text>
            <Text className="font-ui text-small text-brick">{each.says}</Text>
            <View className="flex-row flex-wrap gap-[10px]">
              <Button label="Send again" onPress={() => void store.sendAgain(each).then(() => syncSoon())} />
              <SureButton
                label="Forget"
                sure="Press again to forget it"
                onPress={() => void store.aside.delete(each.id)}
              />
            </View>
          </View>
        );
      })}
    </View>
  );
}
