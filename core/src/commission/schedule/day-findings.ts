import { targetId } from '../../job/targets.js';
import { perObject } from '../../units/kept.js';
import type { Effect, Firing, Rule, ScheduleFinding, ScheduleGround } from './vocabulary.js';

/** A switching to the opposite at most this long before is undone at once; minutes. */
const AT_ONCE = 5;
/** Lights meant to be lit in turn may be so for this long; minutes. */
const TURN = 1;

type State = 'on' | 'off' | 'unknown';

/** What is known of a target at an instant, and by whom it was last set or turned over. */
interface Known {
  state: State;
  by: string[];
  /** The setting next before, unless a toggle or a clash came with it or after it. */
  set: { state: 'on' | 'off'; at: number; by: string[] } | null;
}

/** What the firings of one minute do to one target. */
interface Meeting {
  on: string[];
  off: string[];
  toggles: string[];
}

/** What the firings come to, minute by minute: clashes, what is undone, opposites lit or dark together. */
export function firingFindings(firings: readonly Firing[], ground: ScheduleGround): ScheduleFinding[] {
  const findings: ScheduleFinding[] = [];
  const known = new Map<string, Known>();
  const pairs = oppositesWatched(ground);
  for (const [at, minute] of byMinute(firings)) {
    for (const [target, meeting] of meetingsOf(minute)) {
      const before = known.get(target) ?? { state: 'unknown', by: [], set: null };
      const { after, finding } = met(before, meeting, { target, at });
      known.set(target, after);
      if (finding) findings.push(finding);
    }
    for (const pair of pairs) findings.push(...pair.look(at, known));
  }
  const end = ground.clock.startOf(ground.toDay);
  return [...findings, ...pairs.flatMap((pair) => pair.end(end))];
}

function* byMinute(firings: readonly Firing[]): Generator<[number, Firing[]]> {
  for (let from = 0; from < firings.length; ) {
    const { at } = firings[from] as Firing;
    let to = from;
    while (firings[to]?.at === at) to += 1;
    yield [at, firings.slice(from, to)];
    from = to;
  }
}

/** What comes to each target in a minute. Most minutes have one firing, whose own meetings are kept. */
function meetingsOf(minute: readonly Firing[]): Iterable<[string, Meeting]> {
  const [first, second] = minute;
  if (first && !second) return ownMeetings(first.rule);
  const meetings = new Map<string, Meeting>();
  for (const { rule } of minute)
    for (const [target, effect] of rule.effects) {
      const meeting = meetings.get(target) ?? { on: [], off: [], toggles: [] };
      meetings.set(target, meeting);
      listFor(effect, meeting).push(rule.id);
    }
  return meetings;
}

const ownMeetings = perObject(({ id, effects }: Rule): [string, Meeting][] => {
  const none = { on: [], off: [], toggles: [] };
  const alone = {
    on: { ...none, on: [id] },
    off: { ...none, off: [id] },
    toggle: { ...none, toggles: [id] },
  };
  return [...effects].map(([target, effect]) => [target, alone[effect]]);
});

const listFor = (effect: Effect, meeting: Meeting) =>
  effect === 'toggle' ? meeting.toggles : meeting[effect];

function met(
  before: Known,
  { on, off, toggles }: Meeting,
  { target, at }: { target: string; at: number },
): { after: Known; finding?: ScheduleFinding } {
  if (on.length > 0 && off.length > 0) {
    const by = [...on, ...off].sort();
    return {
      after: { state: 'unknown', by, set: null },
      finding: { code: 'clash', automationIds: by, target, at, until: null },
    };
  }
  const by = on.length > 0 ? on : off;
  const set: State = on.length > 0 ? 'on' : off.length > 0 ? 'off' : before.state;
  const turned = toggles.length % 2 === 0 || set === 'unknown' ? set : set === 'on' ? 'off' : 'on';
  if (toggles.length > 0 || set === 'unknown')
    return { after: { state: turned, by: [...by, ...toggles], set: null } };
  const after: Known = { state: set, by, set: { state: set, at, by } };
  const last = before.set;
  if (!last || last.state === set || at - last.at > AT_ONCE) return { after };
  const both = [...new Set([...last.by, ...by])];
  return { after, finding: { code: 'undone', automationIds: both, target, at, until: null } };
}

/** Watches two that are meant to be lit in turn. */
class Watched {
  private open: ScheduleFinding | null = null;

  constructor(
    private readonly id: string,
    private readonly a: string,
    private readonly b: string,
  ) {}

  /** After everything of a minute: what has just ended. */
  look(at: number, known: ReadonlyMap<string, Known>): ScheduleFinding[] {
    const [a, b] = [known.get(this.a), known.get(this.b)];
    const together = a && b && a.state === b.state && a.state !== 'unknown' ? a.state : null;
    const code = together === 'on' ? 'opposite-overlap' : together === 'off' ? 'opposite-gap' : null;
    if (code === (this.open?.code ?? null)) return [];
    const ended = this.closed(at, at);
    this.open = code && {
      code,
      automationIds: [...new Set([...(a?.by ?? []), ...(b?.by ?? [])])],
      target: this.id,
      at,
      until: null,
    };
    return ended;
  }

  /** What lasts to the end of the range. */
  end(at: number): ScheduleFinding[] {
    return this.closed(at, null);
  }

  private closed(at: number, until: number | null): ScheduleFinding[] {
    return this.open && at - (this.open.at ?? at) > TURN ? [{ ...this.open, until }] : [];
  }
}

function oppositesWatched({ known }: ScheduleGround): Watched[] {
  return (known.job.opposites ?? []).map(({ id, a, b }) => new Watched(id, targetId(a), targetId(b)));
}
