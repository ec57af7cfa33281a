import type { ReactNode } from 'react';
import { Pressable, Text, View } from 'react-native';

/** A group of choices under the name of what they set. */
export function Setting({ label, children }: { label: string; children: ReactNode }) {
  return (
    <View className="gap-[7px]">
      <Text className="font-ui text-small font-semibold text-soft">{label}</Text>
      {children}
    </View>
  );
}

interface SwitchProps {
  label: string;
  /** What it means, where the label alone would not tell. */
  about?: string;
  on: boolean;
  onChange(on: boolean): void;
}

/** Something that is on or off. */
export function Switch({ label, about, on, onChange }: SwitchProps) {
  return (
    <Pressable
      role="switch"
      aria-checked={on}
      aria-label={label}
      onPress={() => onChange(!on)}
      className="min-h-[48px] flex-row items-center gap-[14px] py-[4px]"
    >
      <View className="flex-1">
        <Text className="font-ui text-base text-ink">{label}</Text>
        {about && <Text className="font-ui text-small text-soft">{about}</Text>}
      </View>
      <View
        className={`h-[28px] w-[48px] justify-center rounded-[14px] border-[1.5px] px-[3px] ${on ? 'border-ink bg-ink' : 'border-soft bg-transparent'}`}
      >
        <View className={`h-[19px] w-[19px] rounded-[10px] ${on ? 'self-end bg-ground' : 'self-start bg-soft'}`} />
      </View>
    </Pressable>
  );
}
