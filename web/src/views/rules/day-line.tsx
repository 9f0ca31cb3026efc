import { dayNumber, type Firing, type Schedule, wallText } from '@inventario/core';
import { TimeChart, type TimeSeries } from '../../drawings/schedule/time-chart.js';
import { TextField } from '../../ui/field.js';

const DAY = 1440;

const two = (count: number) => String(count).padStart(2, '0');
/** Hours of a day by the clock. */
export const clockText = (minutes: number) =>
  `${two(Math.floor(minutes / 60) % 24)}:${two(Math.round(minutes % 60))}`;

/** One day of all rules of all apps, from midnight to midnight, with the sun and with what clashes. */
export function DayLine({
  schedule,
  date,
  onDate,
}: {
  schedule: Schedule;
  date: string;
  onDate: (date: string) => void;
}) {
  const day = dayNumber(date);
  const firings = schedule.firings.filter(({ wall }) => Math.floor(wall / DAY) === day);
  const rules = [...new Set(firings.map(({ rule }) => rule))];
  const row = ({ rule }: Firing) => rules.indexOf(rule) + 1;
  const minute = ({ wall }: Firing) => ((wall % DAY) + DAY) % DAY;
  const clashing = firings.filter(({ at, rule }) =>
    schedule.findings.some((finding) => finding.at === at && finding.automationIds.includes(rule.id)),
  );
  const marks = (mark: 'on' | 'off' | 'other'): TimeSeries => ({
    label: { on: 'on', off: 'off', other: 'turned over' }[mark],
    mark,
    points: firings
      .filter((firing) => effectOf(firing) === mark)
      .map((firing) => ({ x: minute(firing), y: row(firing) })),
  });
  const trouble: TimeSeries = {
    label: 'conflict',
    mark: 'trouble',
    points: clashing.map((firing) => ({ x: minute(firing), y: row(firing) })),
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
            title={`Firings of ${date}; they stand in words below`}
            className="h-48"
            series={[marks('on'), marks('off'), marks('other'), trouble]}
            x={{ min: 0, max: DAY, step: 180, text: clockText }}
            y={{
              min: 0,
              max: rules.length + 1,
              step: 1,
              reverse: true,
              text: (value) => short(rules[value - 1]?.automation.name ?? ''),
            }}
          />
          <p className="text-sm text-soft">
            Ring: on. Square: off. Triangle: turned over. Cross: a conflict.
          </p>
          <ol className="text-sm sm:columns-2" aria-label={`Firings of ${date}`}>
            {firings.map((firing) => (
              <li key={`${firing.rule.id}${firing.at}`}>
                {wallText(firing.wall).slice(11)} {firing.rule.automation.name}
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

/** What a rule does to most of what it acts on. */
export function effectOf({ rule }: Firing): 'on' | 'off' | 'other' {
  const effects = [...rule.effects.values()];
  if (effects.every((effect) => effect === 'on')) return 'on';
  return effects.every((effect) => effect === 'off') ? 'off' : 'other';
}
