import { Field } from '@/ui/field';

interface PassphraseFieldProps {
  label: string;
  value: string;
  onChange(value: string): void;
  /** Whether it is chosen here: what keeps passphrases for the reader then proposes one. */
  isNew?: boolean;
  onSubmit?: () => void;
  autoFocus?: boolean;
}

/** A passphrase, not shown as it is typed. */
export function PassphraseField({
  label,
  value,
  onChange,
  isNew = false,
  onSubmit,
  autoFocus = false,
}: PassphraseFieldProps) {
  return (
    <Field
      label={label}
      value={value}
      onChangeText={onChange}
      secureTextEntry
      autoComplete={isNew ? 'new-password' : 'current-password'}
      autoFocus={autoFocus}
      {...(onSubmit && { onSubmitEditing: onSubmit })}
    />
  );
}
