import type { AccountEvent } from '@dorvel/core/model';
import { accountEventWords, callerWords, momentWords } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { Line, Part } from './part';

const AT_FIRST = 8;

/** What was done with the account, the newest first. */
export function AccountLog({ events }: { events: readonly AccountEvent[] }) {
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole ? events : events.slice(0, AT_FIRST);
  return (
    <Part name="What has happened">
      {events.length === 0 && <Text className="font-ui text-base text-soft">Nothing that was written down.</Text>}
      <View {...namedList('What has happened', shown.length)}>
        {shown.map((event, at) => (
          <Line
            // Two things may have been done at the same time; the list is only ever replaced as a whole.
            key={`${event.at} ${at}`}
            title={accountEventWords(event)}
            about={`${momentWords(event.at)} · ${callerWords(event)}`}
          />
        ))}
      </View>
      {!isWhole && events.length > AT_FIRST && (
        <View className="items-start">
          <Button label={`${events.length - AT_FIRST} more`} onPress={() => setWhole(true)} />
        </View>
      )}
      <Text className="font-ui text-small text-soft">
        Sign-ins, who was let in, and what was taken out, for a year. If something here was not you, change the
        passphrase.
      </Text>
    </Part>
  );
}
