import { type DayFiring, dateText } from '@inventario/core';
import type { Schedules } from '../../data/planner.worker.js';
import { TimeChart, type TimeSeries } from '../../drawings/schedule/time-chart.js';
import { TextField } from '../../ui/field.js';

const DAY = 1440;

const two = (count: number) => String(count).padStart(2, '0');
/** Hours of a day by the clock. */
export const clockText = (minutes: number) =>
  `${two(Math.floor(minutes / 60) % 24)}:${two(Math.round(minutes % 60))}`;

/** One day of all rules of all apps, from midnight to midnight, with the sun and with what clashes. */
export function DayLine({
  told: { day, firings },
  date,
  onDate,
}: {
  told: Schedules['day'];
  /** The one that is asked for: its answer comes a moment later. */
  date: string;
  onDate: (date: string) => void;
}) {
  const names = new Map(firings.map(({ automationId, name }) => [automationId, name]));
  const rules = [...names.keys()];
  const point = ({ minute, automationId }: DayFiring) => ({ x: minute, y: rules.indexOf(automationId) + 1 });
  const marks = (mark: 'on' | 'off' | 'other'): TimeSeries => ({
    label: { on: 'on', off: 'off', other: 'turned over' }[mark],
    mark,
    points: firings.filter(({ effect }) => effect === mark).map(point),
  });
  const trouble: TimeSeries = {
    label: 'conflict',
    mark: 'trouble',
    points: firings.filter(({ clashes }) => clashes).map(point),
  };
  return (
    <section aria-label="One day" className="mb-4">
      <div className="mb-1 flex flex-wrap items-end gap-3">
        <h2 className="mr-auto font-bold">One day</h2>
        <TextField label="Date" type="date" value={date} onText={(text) => text && onDate(text)} />
      </div>
      {firings.length === 0 ? (
        <p className="text-soft">No rule by the clock or the sun fires that day.</p>
      ) : (
        <>
          <TimeChart
            title={`Firings of ${dateText(day)}; they stand in words below`}
            className="h-48"
            series={[marks('on'), marks('off'), marks('other'), trouble]}
            x={{ min: 0, max: DAY, step: 180, text: clockText }}
            y={{
              min: 0,
              max: rules.length + 1,
              step: 1,
              reverse: true,
              text: (value) => short(names.get(rules[value - 1] ?? '') ?? ''),
            }}
          />
          <p className="text-sm text-soft">
            Ring: on. Square: off. Triangle: turned over. Cross: a conflict.
          </p>
          <ol className="text-sm sm:columns-2" aria-label={`Firings of ${dateText(day)}`}>
            {firings.map((firing) => (
              <li key={`${firing.automationId} ${firing.minute}`}>
                {clockText(firing.minute)} {firing.name}
                {firing.clashes && <b>, in conflict</b>}
                {firing.clock === 'skipped' && ', put off by the change of the clock'}
                {firing.clock === 'repeated' && ', the first of two such times'}
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}

const short = (name: string) => (name.length > 16 ? `${name.slice(0, 15)}…` : name);
