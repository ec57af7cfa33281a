import { Pressable, Text } from 'react-native';

interface ButtonProps {
  label: string;
  onPress(): void;
  /** `main` once a screen; `plain` beside it; `loss` for what takes something away. */
  kind?: 'main' | 'plain' | 'loss';
  disabled?: boolean;
  /** Said instead of the label, where the label alone would not tell. */
  name?: string;
}

const FRAME = {
  main: 'bg-accent border-accent',
  plain: 'bg-sunken border-sunken',
  loss: 'bg-transparent border-brick',
};
const WORDS = { main: 'text-on-accent', plain: 'text-ink', loss: 'text-brick' };

/** A button with words, at least 44 points high. */
export function Button({ label, onPress, kind = 'plain', disabled = false, name }: ButtonProps) {
  return (
    <Pressable
      role="button"
      aria-label={name ?? label}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      className={`min-h-[48px] justify-center rounded-[14px] border-[1.5px] px-[18px] py-[8px] ${FRAME[kind]} ${disabled ? 'opacity-60' : ''}`}
    >
      <Text className={`text-center font-ui text-base font-semibold ${WORDS[kind]}`}>{label}</Text>
    </Pressable>
  );
}

interface IconButtonProps {
  name: string;
  onPress(): void;
  /** A finger is down on it or the pointer over it: a press is likely. */
  onNear?(): void;
  children: React.ReactNode;
}

/** A button that shows only an icon or a sign; `name` is what it is called. */
export function IconButton({ name, onPress, onNear, children }: IconButtonProps) {
  return (
    <Pressable
      role="button"
      aria-label={name}
      onPress={onPress}
      onPressIn={onNear}
      onHoverIn={onNear}
      className="h-[44px] min-w-[44px] items-center justify-center rounded-[12px]"
    >
      {children}
    </Pressable>
  );
}
