import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { Button } from '@/ui/button';
import { SureButton } from '@/ui/sure-button';
import { Part } from './part';
import { PassphraseField } from './passphrase-field';
import { SaidWrong } from './said-wrong';
import { useTrying } from './use-trying';

/** The end of an account. */
export function EraseAccount() {
  const erase = useAccount((state) => state.erase);
  const router = useRouter();
  const [isOpen, setOpen] = useState(false);
  const [passphrase, setPassphrase] = useState('');
  const { busy, problem, refuse, tryTo } = useTrying();
  const go = async () => {
    if (passphrase === '') refuse('Give your passphrase, so that nobody else erases this account.');
    else if (await tryTo(() => erase(passphrase))) router.replace('/sign-in');
  };
  return (
    <Part name="Erase the account">
      <Text className="font-ui text-base text-ink">
        Everything that the server has of you goes for good: items, texts, pictures, highlights, notes, dossiers, feeds,
        the podcast, and the archives of the night. Backups that whoever runs the server has made elsewhere are theirs
        to erase.
      </Text>
      <View className="flex-row flex-wrap gap-[10px]">
        <Button label="Take the library along first" onPress={() => router.push('/you/archive')} />
        {!isOpen && <Button label="Erase…" name="Erase the account…" kind="loss" onPress={() => setOpen(true)} />}
      </View>
      {isOpen && (
        <View className="gap-[10px] rounded-[16px] border border-brick bg-raised p-[16px]">
          <PassphraseField label="Your passphrase" value={passphrase} onChange={setPassphrase} autoFocus />
          <SaidWrong problem={problem} />
          <View className="flex-row flex-wrap gap-[10px]">
            {busy ? (
              <Text role="status" className="font-ui text-base text-soft">
                Erasing…
              </Text>
            ) : (
              <SureButton label="Erase everything" sure="Yes, erase everything for good" onPress={() => void go()} />
            )}
            <Button label="Keep the account" onPress={() => setOpen(false)} />
          </View>
        </View>
      )}
    </Part>
  );
}
