import { targetId } from '../../job/targets.js';
import type { Firing, Rule, ScheduleFinding, ScheduleGround } from './vocabulary.js';

/** A switching to the opposite at most this long before is undone at once; minutes. */
const AT_ONCE = 5;
/** Lights meant to be lit in turn may be so for this long; minutes. */
const TURN = 1;

type Lit = 'on' | 'off';

/** What is known of a target at an instant, and by whom it was last set or turned over. */
interface Known {
  target: string;
  /** Null before the first firing that does anything to it. */
  state: Lit | 'unknown' | null;
  by: readonly string[];
  /** The setting next before, unless a toggle or a clash came with it or after it. */
  set: { state: Lit; at: number; by: readonly string[] } | null;
}

/** What the firings of one minute do to one target. */
interface Meeting {
  known: Known;
  on: string[];
  off: string[];
  toggles: string[];
}

/** What the firings come to, minute by minute: clashes, what is undone, opposites lit or dark together. */
export function firingFindings(firings: readonly Firing[], ground: ScheduleGround): ScheduleFinding[] {
  const findings: ScheduleFinding[] = [];
  const targets = new Targets(ground.rules);
  const pairs = oppositesWatched(ground, targets);
  for (let from = 0; from < firings.length; ) {
    const { at } = firings[from] as Firing;
    let to = from + 1;
    while (firings[to]?.at === at) to += 1;
    for (const meeting of targets.meetings(firings, from, to)) {
      const finding = met(meeting, at);
      if (finding) findings.push(finding);
    }
    for (const pair of pairs) {
      const ended = pair.look(at);
      if (ended) findings.push(ended);
    }
    from = to;
  }
  const end = ground.clock.startOf(ground.toDay);
  return [...findings, ...pairs.flatMap((pair) => pair.end(end) ?? [])];
}

/** Everything that the rules act on, and what each rule alone does to it: most minutes have one firing. */
class Targets {
  private readonly byId = new Map<string, Known>();
  private readonly alone: ReadonlyMap<Rule, readonly Meeting[]>;

  constructor(rules: readonly Rule[]) {
    this.alone = new Map(rules.map((rule) => [rule, this.ownMeetings(rule)]));
  }

  known(target: string): Known {
    const known = this.byId.get(target) ?? { target, state: null, by: [], set: null };
    this.byId.set(target, known);
    return known;
  }

  /** What comes to each target by the firings of one minute, from one up to another. */
  meetings(firings: readonly Firing[], from: number, to: number): Iterable<Meeting> {
    if (to - from === 1) return this.alone.get((firings[from] as Firing).rule) ?? [];
    const meetings = new Map<Known, Meeting>();
    for (let index = from; index < to; index += 1)
      for (const own of this.alone.get((firings[index] as Firing).rule) ?? []) {
        const before = meetings.get(own.known);
        meetings.set(own.known, before ? together(before, own) : own);
      }
    return meetings.values();
  }

  private ownMeetings({ id, effects }: Rule): Meeting[] {
    return [...effects].map(([target, effect]) => ({
      known: this.known(target),
      on: effect === 'on' ? [id] : [],
      off: effect === 'off' ? [id] : [],
      toggles: effect === 'toggle' ? [id] : [],
    }));
  }
}

const together = (one: Meeting, other: Meeting): Meeting => ({
  known: one.known,
  on: [...one.on, ...other.on],
  off: [...one.off, ...other.off],
  toggles: [...one.toggles, ...other.toggles],
});

/** What a target is after a meeting, and what is to be said of it. */
function met({ known, on, off, toggles }: Meeting, at: number): ScheduleFinding | null {
  if (on.length > 0 && off.length > 0) {
    const by = [...on, ...off].sort();
    Object.assign(known, { state: 'unknown', by, set: null });
    return { code: 'clash', automationIds: by, target: known.target, at, until: null };
  }
  const by = on.length > 0 ? on : off;
  const state = on.length > 0 ? 'on' : off.length > 0 ? 'off' : (known.state ?? 'unknown');
  if (toggles.length > 0 || state === 'unknown') {
    const isTurned = toggles.length % 2 === 1 && state !== 'unknown';
    known.state = isTurned ? (state === 'on' ? 'off' : 'on') : state;
    known.by = [...by, ...toggles];
    known.set = null;
    return null;
  }
  const last = known.set;
  known.state = state;
  known.by = by;
  known.set = { state, at, by };
  if (!last || last.state === state || at - last.at > AT_ONCE) return null;
  const both = [...new Set([...last.by, ...by])];
  return { code: 'undone', automationIds: both, target: known.target, at, until: null };
}

/** Watches two that are meant to be lit in turn. */
class Watched {
  private open: ScheduleFinding | null = null;

  constructor(
    private readonly id: string,
    private readonly a: Known,
    private readonly b: Known,
  ) {}

  /** After everything of a minute: what has just ended. */
  look(at: number): ScheduleFinding | null {
    const { a, b } = this;
    const together = a.state === b.state ? a.state : null;
    const code = together === 'on' ? 'opposite-overlap' : together === 'off' ? 'opposite-gap' : null;
    if (code === (this.open?.code ?? null)) return null;
    const ended = this.closed(at, at);
    this.open = code && {
      code,
      automationIds: [...new Set([...a.by, ...b.by])],
      target: this.id,
      at,
      until: null,
    };
    return ended;
  }

  /** What lasts to the end of the range. */
  end(at: number): ScheduleFinding | null {
    return this.closed(at, null);
  }

  private closed(at: number, until: number | null): ScheduleFinding | null {
    return this.open && at - (this.open.at ?? at) > TURN ? { ...this.open, until } : null;
  }
}

const oppositesWatched = ({ known }: ScheduleGround, targets: Targets): Watched[] =>
  (known.job.opposites ?? []).map(
    ({ id, a, b }) => new Watched(id, targets.known(targetId(a)), targets.known(targetId(b))),
  );
