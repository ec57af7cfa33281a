import type { Week } from '@dorvel/core/reading';
import { weekLabel } from './week-label';

/** The weeks in figures, for those who would rather read. */
export function WeekTable({ weeks }: { weeks: readonly Week[] }) {
  return (
    // It may be wider than a narrow phone with large text; then it scrolls, by keyboard too.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
    <div className="week-table" role="group" aria-label="Week by week" tabIndex={0}>
      <table>
        <thead>
          <tr>
            <th scope="col">Week of</th>
            <th scope="col">Came in</th>
            <th scope="col">Read</th>
            <th scope="col">Heard</th>
            <th scope="col">Min by eye</th>
            <th scope="col">Min by ear</th>
          </tr>
        </thead>
        <tbody>
          {[...weeks].reverse().map((week) => (
            <tr key={week.startsOn}>
              <th scope="row">{weekLabel(week)}</th>
              <td>{week.cameIn}</td>
              <td>{week.read}</td>
              <td>{week.heard}</td>
              <td>{Math.round(week.minutesByEyes)}</td>
              <td>{Math.round(week.minutesByEars)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
