import Search from 'lucide-react/dist/esm/icons/search.mjs';
import X from 'lucide-react/dist/esm/icons/x.mjs';
import type { Ref } from 'react';
import { TextInput } from 'react-native';
import { IconButton } from './button';
import { Icon } from './icon';

interface SearchFieldProps {
  name: string;
  placeholder: string;
  value: string;
  onChange(written: string): void;
  /** The reader is done with writing. */
  onSettle?(): void;
  ref?: Ref<TextInput>;
}

/** Where the reader says what they look for; Escape and a button clear it. */
export function SearchField({ name, placeholder, value, onChange, onSettle, ref }: SearchFieldProps) {
  return (
    <div className="find-field">
      <Icon of={Search} tone="soft" size={20} />
      <TextInput
        ref={ref}
        value={value}
        onChangeText={onChange}
        {...(onSettle ? { onSubmitEditing: onSettle } : {})}
        onKeyPress={({ nativeEvent }) => {
          if (nativeEvent.key === 'Escape') onChange('');
        }}
        aria-label={name}
        placeholder={placeholder}
        inputMode="search"
        autoCapitalize="none"
        autoCorrect={false}
        spellCheck={false}
        className="min-h-[46px] min-w-0 flex-1 px-[10px] font-ui text-base text-ink placeholder:text-soft"
      />
      {value !== '' && (
        <IconButton name="Clear the search" onPress={() => onChange('')}>
          <Icon of={X} tone="ink" size={18} />
        </IconButton>
      )}
    </div>
  );
}
