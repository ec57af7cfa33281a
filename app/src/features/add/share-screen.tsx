import { Redirect, useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { keepShared } from './shared';

/** Where a phone's share sheet leads. */
export function ShareScreen() {
  const shared = useLocalSearchParams<{
    url?: string;
    text?: string;
    title?: string;
    files?: string;
    again?: string;
  }>();
  const router = useRouter();
  const [hasAddress] = useState(() => keepShared(shared));
  if (hasAddress || shared.files !== undefined) return <Redirect href="/inbox" />;
  return (
    <View role="main" className="mx-auto w-full max-w-[560px] gap-[14px] px-[22px] py-[32px]">
      <Text role="heading" aria-level={1} className="font-read text-head font-semibold text-ink">
        {shared.again === undefined ? 'No address in it' : 'Share it once more'}
      </Text>
      <Text className="font-ui text-base text-soft">
        {shared.again === undefined
          ? 'What was shared has no web address, so there is no page to save. Share the page itself, or copy its address and press Save.'
          : 'Dorvel was not ready yet to take what you shared. It is now.'}
      </Text>
      {shared.text ? <Text className="font-read text-row text-ink">{shared.text}</Text> : null}
      <View className="items-start">
        <Button label="To the Inbox" onPress={() => router.replace('/inbox')} />
      </View>
    </View>
  );
}
