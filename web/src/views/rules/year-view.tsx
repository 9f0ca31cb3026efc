import { dateText, type Moment, plural } from '@inventario/core';
import type { Schedules } from '../../data/planner.worker.js';
import { TimeChart, type TimeSeries } from '../../drawings/schedule/time-chart.js';
import { clockText } from './day-line.js';

const DAY = 1440;

/** A year of all rules: dates from left to right, hours from top to bottom, the sun as two lines. */
export function YearView({ schedules: { today, year } }: { schedules: Schedules }) {
  const series = (label: string, mark: TimeSeries['mark'], moments: readonly Moment[]): TimeSeries => ({
    label,
    mark,
    points: moments.map(({ day, minute }) => ({ x: day - today, y: minute })),
  });
  const marks = (mark: 'on' | 'off' | 'other', label: string) =>
    series(
      label,
      mark,
      year.marks.filter(({ effect }) => effect === mark),
    );
  const times = year.conflicts.reduce((sum, conflict) => sum + conflict.times, 0);
  return (
    <section aria-label="The year" className="mt-4">
      <h2 className="font-bold">The year</h2>
      <TimeChart
        title="All rules over a year, with sunrise and sunset"
        className="h-72"
        series={[
          series('sunrise', 'line', year.sunrises),
          series('sunset', 'line', year.sunsets),
          marks('on', 'on'),
          marks('off', 'off'),
          marks('other', 'turned over'),
          series('conflict', 'trouble', year.troubles),
        ]}
        x={{ min: 0, max: 365, step: 30, text: (value) => dateText(today + Math.round(value)).slice(5) }}
        y={{ min: 0, max: DAY, step: 180, reverse: true, text: clockText }}
      />
      <p className="text-sm text-soft">
        Every fourth day is drawn, with sunrise and sunset; {plural(year.firings, 'firing')} in all
        {times > 0 && `, and ${plural(year.conflicts.length, 'conflict')}, ${plural(times, 'time')}`}.
      </p>
    </section>
  );
}
