import type { Invitation } from '@dorvel/core/model';
import { momentWords } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { api } from '@/device/sync/api';
import { CopyButton, SecretNote } from '@/features/elsewhere/make-token';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { Line, Part, type PartProps } from './part';

/** Lets others have an account of their own on this server. */
export function Invitations({ overview: { invitations }, change }: PartProps) {
  const [made, setMade] = useState<{ invitation: Invitation; code: string } | null>(null);
  const invite = () => change(async () => setMade(await api.invite()));
  return (
    <Part name="Others on this server">
      <Text className="font-ui text-base text-ink">
        An invitation lets one person make an account here. Neither of you sees the other’s library.
      </Text>
      <View {...namedList('Open invitations', invitations.length)}>
        {invitations.map(({ id, madeAt, expiresAt }) => (
          <Line
            key={id}
            title={`Made ${momentWords(madeAt)}`}
            about={`Good until ${new Date(expiresAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}`}
            end={
              <Button
                label="Withdraw"
                name={`Withdraw the invitation made ${momentWords(madeAt)}`}
                kind="loss"
                onPress={() => void change(() => api.withdrawInvitation(id))}
              />
            }
          />
        ))}
      </View>
      <View className="items-start">
        <Button label="Invite somebody" onPress={() => void invite()} />
      </View>
      {made && invitations.some(({ id }) => id === made.invitation.id) && (
        <View
          key={made.code}
          role="region"
          aria-label="The invitation"
          className="gap-[10px] rounded-[16px] border border-line bg-raised p-[16px]"
        >
          <Text selectable className="font-ui text-head font-semibold text-ink">
            {made.code}
          </Text>
          <CopyButton label="Copy the code" text={made.code} />
          <SecretNote>
            It is shown once. Tell it to whom you invite, with the address of this server: there they press “I have an
            invitation”.
          </SecretNote>
        </View>
      )}
    </Part>
  );
}
