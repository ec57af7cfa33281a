import type { ReactNode } from 'react';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { SureButton } from '@/ui/sure-button';

interface SecretAddressProps {
  /** What it is the address of, for those who hear the page. */
  name: string;
  address: string;
  onRenew(): void;
  /** What is to be known of it. */
  words?: string;
  /** What else can be done with it. */
  children?: ReactNode;
}

/** An address that nobody can guess: to be copied, and to be exchanged for another. */
export function SecretAddress({ name, address, onRenew, words, children }: SecretAddressProps) {
  const show = useNotices((state) => state.show);
  const copy = async () => {
    await navigator.clipboard.writeText(address);
    show({ text: 'The address is copied.' });
  };
  return (
    <View className="gap-[10px] rounded-[16px] border border-line bg-raised p-[16px]">
      <Text selectable role="note" aria-label={name} className="font-ui text-base font-semibold text-ink">
        {address}
      </Text>
      {words !== undefined && <Text className="font-ui text-small text-soft">{words}</Text>}
      <View className="flex-row flex-wrap gap-[10px]">
        <Button label="Copy the address" onPress={() => void copy()} />
        <SureButton label="Another address" sure="Yes, the old one ends" onPress={onRenew} />
        {children}
      </View>
    </View>
  );
}
