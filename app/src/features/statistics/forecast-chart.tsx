import type { Forecast } from '@dorvel/core/forecast';
import { Text, View } from 'react-native';
import { LineChart } from 'react-native-gifted-charts';
import { AXIS_ROOM, frameOf, INITIAL, Legend, spokenList } from './chart-parts';

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
  const spacing = (room - AXIS_ROOM - 2 * INITIAL) / Math.max(1, behind.length - 1 + weeks);
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
      aria-label={`Minutes that wait, by week. Behind: ${spokenList(behind)}. To come: ${spokenList(ahead.map(({ middle }) => middle))}; at least ${spokenList(ahead.map(({ low }) => low))}, at most ${spokenList(ahead.map(({ high }) => high))}.`}
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
        {...frameOf(room, most)}
        spacing={spacing}
        yAxisLabelSuffix=" h"
        adjustToWidth={false}
      />
      <View className="flex-row justify-between pl-[34px]">
        <Text className="font-ui text-small text-soft">{behind.length - 1} weeks ago</Text>
        <Text className="font-ui text-small text-soft">in {weeks} weeks</Text>
      </View>
    </View>
  );
}

/** What waited, by week: the pile's line alone. Nothing before two weeks are whole. */
export function PileChart({ behind, room }: Pick<ForecastChartProps, 'behind' | 'room'>) {
  if (behind.length < 2) return null;
  return (
    <View role="img" aria-label={`Minutes that waited at the end of each week, oldest first: ${spokenList(behind)}.`}>
      <LineChart
        data={behind.map((minutes) => ({ value: minutes / 60 }))}
        color={COLOURS.usual}
        thickness={2.5}
        hideDataPoints
        {...frameOf(room, Math.max(...behind) / 60)}
        spacing={(room - AXIS_ROOM - 2 * INITIAL) / (behind.length - 1)}
        yAxisLabelSuffix=" h"
        adjustToWidth={false}
      />
      <View className="flex-row justify-between pl-[34px]">
        <Text className="font-ui text-small text-soft">{behind.length - 1} weeks before</Text>
        <Text className="font-ui text-small text-soft">the last whole week</Text>
      </View>
    </View>
  );
}
