import { callerWords, momentWords, whenWords } from '@dorvel/core/wording';
import { Text, View } from 'react-native';
import { api } from '@/device/sync/api';
import { Button } from '@/ui/button';
import { SureButton } from '@/ui/sure-button';
import { Line, Part, type PartProps } from './part';

/** Where the account is open: each device, and how to shut it out. */
export function Sessions({ overview: { sessions }, change }: PartProps) {
  return (
    <Part name="Signed in on">
      <View role="list" aria-label="Signed in on">
        {sessions.map((session) => (
          <Line
            key={session.id}
            title={callerWords(session)}
            about={`${session.isThis ? 'This device' : `Last used ${momentWords(session.lastUsedAt)}`} · since ${whenWords(session.signedInAt)}`}
            end={
              session.isThis ? undefined : (
                <Button
                  label="End"
                  name={`End the session of ${callerWords(session)}`}
                  kind="loss"
                  onPress={() => void change(() => api.endSession(session.id))}
                />
              )
            }
          />
        ))}
      </View>
      {sessions.length > 1 && (
        <View className="items-start">
          <SureButton
            label="End all the others"
            sure="Yes, end them all"
            onPress={() => void change(() => api.endOtherSessions())}
          />
        </View>
      )}
      <Text className="font-ui text-small text-soft">
        A device whose session was ended keeps what it has, until somebody signs in or out there. What it had not sent
        yet is sent then.
      </Text>
    </Part>
  );
}
