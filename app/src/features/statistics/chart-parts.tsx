import { Text, View } from 'react-native';
import { scaleFor } from './scale';

/** Of the drawing of a chart, and of the names of its scale beside it, in points. */
const HEIGHT = 170;
export const AXIS_ROOM = 34;
/** Before the first value. */
export const INITIAL = 8;

const AXIS_TEXT = {
  color: 'var(--soft)',
  fontSize: 12,
  fontFamily: 'var(--face-ui)',
};

/**
 * What all charts have in common: their size, their scale and how its lines and names are drawn.
 *
 * @param room width there is, in points
 * @param most the largest value
 */
export function frameOf(room: number, most: number) {
  const { top, sections } = scaleFor(most);
  return {
    width: room - AXIS_ROOM,
    height: HEIGHT,
    initialSpacing: INITIAL,
    endSpacing: 0,
    maxValue: top,
    noOfSections: sections,
    yAxisThickness: 0,
    yAxisLabelWidth: AXIS_ROOM - 6,
    xAxisColor: 'var(--soft)',
    rulesColor: 'var(--line)',
    rulesType: 'solid',
    yAxisTextStyle: AXIS_TEXT,
    xAxisLabelTextStyle: AXIS_TEXT,
    disableScroll: true,
    // Steps are whole numbers; see scaleFor.
    roundToDigits: 0,
  } as const;
}

/** Numbers as those hear them who do not see the chart. */
export const spokenList = (values: readonly number[]): string => values.map((value) => Math.round(value)).join(', ');

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
