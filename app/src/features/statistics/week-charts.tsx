import type { Week } from '@dorvel/core/reading';
import { View } from 'react-native';
import { BarChart } from 'react-native-gifted-charts';
import { AXIS_ROOM, frameOf, INITIAL, Legend } from './chart-parts';
import { weekLabel } from './week-label';

interface ChartProps {
  weeks: readonly Week[];
  /** Width there is, in points. */
  room: number;
}

const COLOURS = { cameIn: 'var(--soft)', eyes: 'var(--accent)', ears: 'var(--moss)' } as const;

/** Items that came in beside items that were finished, for each week. */
export function ItemsChart({ weeks, room }: ChartProps) {
  const bar = barWidth(weeks, room);
  const finished = ({ read, heard }: Week) => read + heard;
  return (
    <View
      role="img"
      aria-label={`Items by week, oldest first. Came in: ${list(weeks, (week) => week.cameIn)}. Finished: ${list(weeks, finished)}.`}
    >
      <Legend
        entries={[
          ['Came in', COLOURS.cameIn],
          ['Read', COLOURS.eyes],
          ['Heard', COLOURS.ears],
        ]}
      />
      <Bars
        room={room}
        most={Math.max(...weeks.flatMap((week) => [week.cameIn, finished(week)]))}
        stackData={weeks.flatMap((week, at) => [
          {
            stacks: [{ value: week.cameIn, color: COLOURS.cameIn }],
            spacing: 3,
            ...labelOf(week, at, weeks.length, bar),
          },
          {
            stacks: [
              { value: week.read, color: COLOURS.eyes },
              { value: week.heard, color: COLOURS.ears },
            ],
            spacing: bar,
          },
        ])}
        barWidth={bar}
      />
    </View>
  );
}

/** Minutes by eye and by ear, for each week. */
export function MinutesChart({ weeks, room }: ChartProps) {
  const bar = barWidth(weeks, room);
  return (
    <View
      role="img"
      aria-label={`Minutes by week, oldest first. By eye: ${list(weeks, (week) => week.minutesByEyes)}. By ear: ${list(weeks, (week) => week.minutesByEars)}.`}
    >
      <Legend
        entries={[
          ['By eye', COLOURS.eyes],
          ['By ear', COLOURS.ears],
        ]}
      />
      <Bars
        room={room}
        most={Math.max(...weeks.map((week) => week.minutesByEyes + week.minutesByEars))}
        stackData={weeks.map((week, at) => ({
          stacks: [
            { value: week.minutesByEyes, color: COLOURS.eyes },
            { value: week.minutesByEars, color: COLOURS.ears },
          ],
          spacing: bar * 1.5 + 3,
          ...labelOf(week, at, weeks.length, bar),
        }))}
        barWidth={bar * 1.5}
      />
    </View>
  );
}

interface BarsProps {
  room: number;
  most: number;
  barWidth: number;
  stackData: { stacks: { value: number; color: string }[]; spacing: number }[];
}

function Bars({ room, most, barWidth: width, stackData }: BarsProps) {
  return <BarChart stackData={stackData} {...frameOf(room, most)} barWidth={width} disablePress />;
}

/** Each week has room for two bars, the gap between them and one bar's width behind. */
function barWidth(weeks: readonly Week[], room: number): number {
  return Math.floor((room - AXIS_ROOM - INITIAL) / weeks.length / 3) - 1;
}

/** Every other week is named, counted from this one, so that the names do not run into one another. */
function labelOf(week: Week, at: number, count: number, bar: number) {
  return (count - 1 - at) % 2 === 0 ? { label: weekLabel(week), labelWidth: bar * 4 } : {};
}

function list(weeks: readonly Week[], value: (week: Week) => number): string {
  return weeks.map((week) => Math.round(value(week))).join(', ');
}
