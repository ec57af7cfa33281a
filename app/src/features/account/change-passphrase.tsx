import { PassphraseChange } from '@dorvel/core/model';
import { inputWords } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { api } from '@/device/sync/api';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { Switch } from '@/ui/setting';
import { Part, type PartProps } from './part';
import { PassphraseField } from './passphrase-field';
import { SaidWrong } from './said-wrong';
import { useTrying } from './use-trying';

/** Another passphrase for who knows the one there is. */
export function ChangePassphrase({ change }: PartProps) {
  const [passphrase, setPassphrase] = useState('');
  const [wanted, setWanted] = useState('');
  const [endTokens, setEndTokens] = useState(false);
  const { busy, problem, refuse, tryTo } = useTrying();
  const show = useNotices((state) => state.show);
  const go = async () => {
    const parsed = PassphraseChange.safeParse({ passphrase, wanted, endTokens });
    if (passphrase === '') refuse('Give the passphrase that you have now.');
    else if (!parsed.success) refuse(inputWords(parsed.error));
    else if (await tryTo(() => api.changePassphrase(parsed.data))) {
      setPassphrase('');
      setWanted('');
      show({ text: 'The passphrase is changed. Other devices have to sign in anew.' });
      await change(() => Promise.resolve());
    }
  };
  return (
    <Part name="Passphrase">
      <PassphraseField label="Current passphrase" value={passphrase} onChange={setPassphrase} />
      <PassphraseField
        label="New passphrase, 12 characters or more"
        value={wanted}
        onChange={setWanted}
        isNew
        onSubmit={() => void go()}
      />
      <Switch
        label="End buttons and bookmarks too"
        about="What saves from elsewhere has a token of its own, and needs no passphrase."
        on={endTokens}
        onChange={setEndTokens}
      />
      <SaidWrong problem={problem} />
      <View className="items-start">
        <Button label={busy ? 'One moment…' : 'Change the passphrase'} disabled={busy} onPress={() => void go()} />
      </View>
      <Text className="font-ui text-small text-soft">All other devices are signed out by it.</Text>
    </Part>
  );
}
