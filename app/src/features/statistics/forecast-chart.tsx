import type { Forecast } from '@dorvel/core/forecast';
import { Text, View } from 'react-native';
import { LineChart } from 'react-native-gifted-charts';
import { AXIS_ROOM, AXIS_TEXT, HEIGHT, Legend } from './chart-parts';
import { scaleFor } from './scale';

interface ForecastChartProps {
  /** Minutes that waited at the end of the weeks behind, oldest first. */
  behind: readonly number[];
  usual: Forecast;
  /** With what the reader tries; null when nothing is tried. */
  tried: Forecast | null;
  /** How many weeks ahead are drawn. */
  weeks: number;
  /** Width there is, in points. */
  room: number;
}

const COLOURS = { usual: 'var(--accent)', tried: 'var(--moss)', range: 'var(--soft)' } as const;

/** What waits: the weeks behind, and the weeks to come with the range in which they lie. */
export function ForecastChart({ behind, usual, tried, weeks, room }: ForecastChartProps) {
  const shown = tried ?? usual;
  const ahead = shown.weeks.slice(0, weeks);
  const hours = (minutes: number) => ({ value: minutes / 60 });
  const now = behind.at(-1) ?? 0;
  const from = (values: readonly number[]) => [...behind.slice(0, -1), now, ...values].map(hours);
  const most = Math.max(...behind, ...ahead.map(({ high }) => high)) / 60;
  const { top, sections } = scaleFor(most);
  const spacing = (room - AXIS_ROOM - 16) / Math.max(1, behind.length - 1 + weeks);
  const line = (values: readonly number[], color: string, dashed: boolean) => ({
    data: from(values),
    color,
    thickness: dashed ? 1.5 : 2.5,
    hideDataPoints: true,
    ...(dashed ? { strokeDashArray: [4, 4], startIndex: behind.length - 1 } : {}),
  });
  return (
    <View
      role="img"
      aria-label={`Minutes that wait, by week. Behind: ${list(behind)}. To come: ${list(ahead.map(({ middle }) => middle))}; at least ${list(ahead.map(({ low }) => low))}, at most ${list(ahead.map(({ high }) => high))}.`}
    >
      <Legend
        entries={[
          [tried ? 'What waits, with what you try' : 'What waits', tried ? COLOURS.tried : COLOURS.usual],
          ['Eight of ten cases lie between', COLOURS.range],
        ]}
      />
      <LineChart
        dataSet={[
          line(
            ahead.map(({ middle }) => middle),
            tried ? COLOURS.tried : COLOURS.usual,
            false,
          ),
          line(
            ahead.map(({ low }) => low),
            COLOURS.range,
            true,
          ),
          line(
            ahead.map(({ high }) => high),
            COLOURS.range,
            true,
          ),
          ...(tried
            ? [
                line(
                  usual.weeks.slice(0, weeks).map(({ middle }) => middle),
                  COLOURS.usual,
                  true,
                ),
              ]
            : []),
        ]}
        width={room - AXIS_ROOM}
        height={HEIGHT}
        spacing={spacing}
        initialSpacing={8}
        endSpacing={0}
        maxValue={top}
        noOfSections={sections}
        yAxisThickness={0}
        yAxisLabelWidth={AXIS_ROOM - 6}
        yAxisLabelSuffix=" h"
        xAxisColor="var(--soft)"
        rulesColor="var(--line)"
        rulesType="solid"
        yAxisTextStyle={AXIS_TEXT}
        disableScroll
        adjustToWidth={false}
      />
      <View className="flex-row justify-between pl-[34px]">
        <Text className="font-ui text-small text-soft">{behind.length - 1} weeks ago</Text>
        <Text className="font-ui text-small text-soft">in {weeks} weeks</Text>
      </View>
    </View>
  );
}

const list = (values: readonly number[]): string => values.map((value) => Math.round(value)).join(', ');
