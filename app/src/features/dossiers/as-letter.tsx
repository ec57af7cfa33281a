import { DossierLetter } from '@dorvel/core/model';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { SectionHeading } from '@/ui/section-heading';

/** A dossier sent by mail, as it is now. */
export function AsLetter({ dossierId }: { dossierId: string }) {
  const [to, setTo] = useState('');
  const [words, setWords] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const show = useNotices((state) => state.show);
  const sendIt = async () => {
    const letter = DossierLetter.safeParse({ to: to.trim(), words });
    if (!letter.success) {
      setFault('That is not a mail address. It should look like name@example.org.');
      return;
    }
    setBusy(true);
    setFault(null);
    try {
      await api.sendDossier(dossierId, letter.data.to, letter.data.words);
      show({ text: `Sent to ${letter.data.to}.` });
      setTo('');
    } catch (error) {
      setFault(inWords(error));
    }
    setBusy(false);
  };
  return (
    <View role="region" aria-label="As a letter" className="gap-[12px]">
      <SectionHeading>As a letter</SectionHeading>
      <Text className="font-ui text-base text-ink">As it is now. It is sent with your mail address to answer to.</Text>
      <Field label="To" value={to} onChangeText={setTo} inputMode="email" autoComplete="email" fault={fault} />
      <Field label="A few words before it" value={words} onChangeText={setWords} multiline />
      <View className="items-start">
        <Button
          label={busy ? 'Sending…' : 'Send it'}
          disabled={busy || to.trim() === ''}
          onPress={() => void sendIt()}
        />
      </View>
    </View>
  );
}
