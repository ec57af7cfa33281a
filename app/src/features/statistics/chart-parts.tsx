import { Text, View } from 'react-native';

/** Of the drawing of a chart, and of the names of its scale beside it, in points. */
export const HEIGHT = 170;
export const AXIS_ROOM = 34;

export const AXIS_TEXT = {
  color: 'var(--soft)',
  fontSize: 12,
  fontFamily: '"Atkinson Hyperlegible Next Variable", sans-serif',
};

/** Which colour stands for what. */
export function Legend({ entries }: { entries: readonly (readonly [name: string, colour: string])[] }) {
  return (
    <View className="flex-row flex-wrap gap-[16px] pb-[12px]">
      {entries.map(([name, colour]) => (
        <View key={name} className="flex-row items-center gap-[7px]">
          <View className="h-[12px] w-[12px] rounded-[3px]" style={{ backgroundColor: colour }} />
          <Text className="font-ui text-small text-ink">{name}</Text>
        </View>
      ))}
    </View>
  );
}
