import { DAY } from './calendar.js';
import type { Firing, RuleCost, Schedule, ScheduleFinding } from './vocabulary.js';

/** What a firing does to all it acts on; `other` where it turns over, or does one here and one there. */
type FiringEffect = 'on' | 'off' | 'other';

/** One firing of a day. */
export interface DayFiring {
  automationId: string;
  name: string;
  /** Minutes of the day by the clock on the wall. */
  minute: number;
  effect: FiringEffect;
  clock: Firing['clock'];
  clashes: boolean;
}

/** A time of some date, by the clock on the wall. */
export interface Moment {
  day: number;
  minute: number;
}

/** A conflict with how often it comes. */
interface Conflict {
  /** Made of the code, the rules and the target: its words may be those of another. */
  id: string;
  finding: ScheduleFinding;
  times: number;
}

/** What is to be seen of all rules over a long time, small enough to be handed on. */
export interface Overview {
  firings: number;
  sunrises: Moment[];
  sunsets: Moment[];
  /** Firings of one in so many dates. */
  marks: (Moment & { effect: FiringEffect })[];
  /** Conflicts of the same dates. */
  troubles: Moment[];
  conflicts: Conflict[];
  costs: RuleCost[];
}

/** @param every one of so many dates is shown */
export function overviewOf(schedule: Schedule, every: number): Overview {
  const from = schedule.days[0]?.day ?? 0;
  const isShown = ({ day }: Moment) => (day - from) % every === 0;
  const moment = (at: number) => momentOf(schedule.wallAt(at));
  const suns = (field: 'sunrise' | 'sunset') =>
    schedule.days.flatMap((day) => {
      const at = day[field];
      return at === null ? [] : [moment(at)];
    });
  return {
    firings: schedule.firings.length,
    sunrises: suns('sunrise'),
    sunsets: suns('sunset'),
    marks: schedule.firings
      .map((firing) => ({ ...momentOf(firing.wall), effect: effectOf(firing) }))
      .filter(isShown),
    troubles: schedule.findings.flatMap(({ at }) => (at === null ? [] : [moment(at)])).filter(isShown),
    conflicts: conflictsOf(schedule.findings),
    costs: schedule.costs,
  };
}

/** The firings of one date of a schedule. @param day its number */
export function firingsOfDay(schedule: Schedule, day: number): DayFiring[] {
  return schedule.firings
    .filter(({ wall }) => momentOf(wall).day === day)
    .map((firing) => ({
      automationId: firing.rule.id,
      name: firing.rule.automation.name,
      minute: momentOf(firing.wall).minute,
      effect: effectOf(firing),
      clock: firing.clock,
      clashes: schedule.findings.some(
        ({ at, automationIds }) => at === firing.at && automationIds.includes(firing.rule.id),
      ),
    }));
}

/** The same rules at odds over the same target are one conflict, however often it comes. */
function conflictsOf(findings: readonly ScheduleFinding[]): Conflict[] {
  const conflicts = new Map<string, Conflict>();
  for (const finding of findings) {
    const id = JSON.stringify([finding.code, [...finding.automationIds].sort(), finding.target]);
    const conflict = conflicts.get(id) ?? { id, finding, times: 0 };
    conflict.times += 1;
    conflicts.set(id, conflict);
  }
  return [...conflicts.values()];
}

function momentOf(wall: number): Moment {
  const day = Math.floor(wall / DAY);
  return { day, minute: wall - day * DAY };
}

function effectOf({ rule }: Firing): FiringEffect {
  const effects = [...rule.effects.values()];
  if (effects.every((effect) => effect === 'on')) return 'on';
  return effects.every((effect) => effect === 'off') ? 'off' : 'other';
}
