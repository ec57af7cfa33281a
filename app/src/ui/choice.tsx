import { Pressable, Text, View } from 'react-native';

interface ChoiceProps<Value extends string> {
  name: string;
  options: readonly { value: Value; label: string; fontFamily?: string }[];
  value: Value;
  onChange(value: Value): void;
}

/** A small set of options, one of them chosen. */
export function Choice<Value extends string>({ name, options, value, onChange }: ChoiceProps<Value>) {
  return (
    <View role="radiogroup" aria-label={name} className="flex-row flex-wrap gap-[8px]">
      {options.map((option) => {
        const chosen = option.value === value;
        return (
          <Pressable
            key={option.value}
            role="radio"
            aria-checked={chosen}
            aria-label={option.label}
            onPress={() => onChange(option.value)}
            className={`min-h-[44px] justify-center rounded-[22px] border-[1.5px] px-[16px] ${chosen ? 'border-ink bg-ink' : 'border-soft bg-transparent'}`}
          >
            <Text
              className={`font-ui text-base ${chosen ? 'font-semibold text-ground' : 'text-ink'}`}
              style={option.fontFamily ? { fontFamily: option.fontFamily } : undefined}
            >
              {option.label}
            </Text>
          </Pressable>
        );
      })}
    </View>
  );
}
