import { Pressable, ScrollView, Text, View } from 'react-native';

interface ChoiceProps<Value extends string | number> {
  name: string;
  options: readonly { value: Value; label: string; fontFamily?: string }[];
  value: Value;
  onChange(value: Value): void;
  /** In one line that scrolls sideways, where room below is short. */
  oneLine?: boolean;
}

/** A small set of options, one of them chosen. */
export function Choice<Value extends string | number>({
  name,
  options,
  value,
  onChange,
  oneLine = false,
}: ChoiceProps<Value>) {
  const group = (
    <View role="radiogroup" aria-label={name} className={`flex-row gap-[8px] ${oneLine ? '' : 'flex-wrap'}`}>
      {options.map((option) => {
        const chosen = option.value === value;
        return (
          <Pressable
            key={option.value}
            role="radio"
            aria-checked={chosen}
            aria-label={option.label}
            onPress={() => onChange(option.value)}
            className={`min-h-[44px] min-w-[44px] items-center justify-center rounded-[22px] border-[1.5px] px-[16px] ${chosen ? 'border-ink bg-ink' : 'border-soft bg-transparent'}`}
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
  if (!oneLine) return group;
  return (
    <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerClassName="pr-[20px]">
      {group}
    </ScrollView>
  );
}
