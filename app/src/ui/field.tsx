import { useEffect, useId, useRef } from 'react';
import { Text, TextInput, type TextInputProps, View } from 'react-native';

interface FieldProps extends Pick<
  TextInputProps,
  | 'value'
  | 'onChangeText'
  | 'secureTextEntry'
  | 'autoComplete'
  | 'inputMode'
  | 'onSubmitEditing'
  | 'onBlur'
  | 'autoFocus'
  | 'multiline'
  | 'onSelectionChange'
> {
  label: string;
  /** What is wrong with the input, and what to do. */
  fault?: string | null;
}

/** A labelled line of text to be filled in. */
export function Field({ label, fault, autoFocus = false, ...input }: FieldProps) {
  const id = useId();
  const field = useRef<TextInput>(null);
  useEffect(() => {
    if (!autoFocus) return undefined;
    // A sheet that opens gives the focus to its first button, a moment after this is on screen.
    const frame = requestAnimationFrame(() => field.current?.focus());
    return () => cancelAnimationFrame(frame);
  }, [autoFocus]);
  return (
    <View className="gap-[6px]">
      <Text nativeID={`${id}-label`} className="font-ui text-base font-semibold text-ink">
        {label}
      </Text>
      <TextInput
        {...input}
        ref={field}
        aria-labelledby={`${id}-label`}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        autoCapitalize="none"
        autoCorrect={false}
        spellCheck={false}
        numberOfLines={input.multiline ? 6 : 1}
        className="min-h-[50px] rounded-[12px] border-[1.5px] border-soft bg-raised px-[14px] py-[10px] font-ui text-base text-ink"
      />
      {fault ? (
        <Text nativeID={`${id}-fault`} role="alert" className="font-ui text-small text-brick">
          {fault}
        </Text>
      ) : null}
    </View>
  );
}
