import { dateText, type Schedule } from '@inventario/core';
import { TimeChart, type TimeSeries } from '../../drawings/schedule/time-chart.js';
import { clockText, effectOf } from './day-line.js';

const DAY = 1440;
/** A year has more firings than a screen has points: one of so many days is drawn. */
const EVERY = 4;

/** A year of all rules: dates from left to right, hours from top to bottom, the sun as two lines. */
export function YearView({ schedule }: { schedule: Schedule }) {
  const [first] = schedule.days;
  const from = first?.day ?? 0;
  const sun = (field: 'sunrise' | 'sunset'): TimeSeries => ({
    label: field,
    mark: 'line',
    points: schedule.days.flatMap((day) => {
      const at = day[field];
      const wall = at === null ? null : schedule.wallAt(at);
      return wall === null ? [] : [{ x: day.day - from, y: ((wall % DAY) + DAY) % DAY }];
    }),
  });
  const drawn = schedule.firings.filter(({ wall }) => (Math.floor(wall / DAY) - from) % EVERY === 0);
  const marks = (mark: 'on' | 'off' | 'other'): TimeSeries => ({
    label: mark,
    mark,
    points: drawn
      .filter((firing) => effectOf(firing) === mark)
      .map(({ wall }) => ({ x: Math.floor(wall / DAY) - from, y: ((wall % DAY) + DAY) % DAY })),
  });
  const trouble: TimeSeries = {
    label: 'conflict',
    mark: 'trouble',
    points: schedule.findings
      .flatMap(({ at }) => (at === null ? [] : [schedule.wallAt(at)]))
      .filter((wall) => (Math.floor(wall / DAY) - from) % EVERY === 0)
      .map((wall) => ({ x: Math.floor(wall / DAY) - from, y: ((wall % DAY) + DAY) % DAY })),
  };
  return (
    <section aria-label="The year">
      <h2 className="font-bold">The year</h2>
      <TimeChart
        title="All rules over a year, with sunrise and sunset"
        className="h-72"
        series={[sun('sunrise'), sun('sunset'), marks('on'), marks('off'), marks('other'), trouble]}
        x={{ min: 0, max: 365, step: 30, text: (value) => dateText(from + Math.round(value)).slice(5) }}
        y={{ min: 0, max: DAY, step: 180, reverse: true, text: clockText }}
      />
      <p className="text-sm text-soft">
        Every fourth day is drawn, with sunrise and sunset; {schedule.firings.length} firings and{' '}
        {schedule.findings.length} conflicts in all.
      </p>
    </section>
  );
}
