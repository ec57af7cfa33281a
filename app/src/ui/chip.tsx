import { Pressable, Text } from 'react-native';

interface ChipProps {
  label: string;
  /** Said instead of the label, where the label alone would not tell. */
  name?: string;
  /** Whether what it stands for holds now; undefined for one that only does something. */
  on?: boolean;
  onPress(): void;
}

/** A small word to be pressed: a filter, a tag. */
export function Chip({ label, name, on, onPress }: ChipProps) {
  return (
    <Pressable
      role="button"
      aria-label={name ?? label}
      aria-pressed={on}
      onPress={onPress}
      className={`min-h-[44px] justify-center rounded-[12px] border px-[13px] ${on ? 'border-accent bg-accent' : 'border-soft bg-transparent'}`}
    >
      <Text className={`font-ui text-small ${on ? 'font-semibold text-on-accent' : 'text-ink'}`}>{label}</Text>
    </Pressable>
  );
}
