import type { Reading } from '../../job/schema/survey.js';
import { entryAt } from '../../units/entry-at.js';
import type { CoreGrade } from '../judging/grades.js';
import { arrangementOf, testKey } from '../problem/readings-as-tests.js';
import type { Point, Problem, SwitchPosition, Test } from '../problem/vocabulary.js';

/** Why a test is proposed, as data; the sentence stands with the others. */
export interface NextReason {
  code: 'tells-most' | 'missing-evidence' | 'looks-ahead' | 'first-look';
  subject: string;
  purpose: 'fed' | 'line' | 'gone' | 'load' | 'neutral' | 'ground' | 'traveler' | 'onward' | 'apart';
}

/** A test that could be made, before it is weighed. */
export interface Candidate {
  test: Test;
  reason: NextReason;
  minutes: number;
}

/** Minutes a test costs: switching and proving shared where one arrangement serves several. */
export const MINUTES = {
  asItStands: 0.5,
  inPlace: 1,
  ohmsDead: 2,
  indicatorOut: 3,
  clippedOut: 6,
  lifted: 7,
  lampsOut: 3,
} as const;

/** Devices without a contact of their own. */
const SWITCHLESS: ReadonlySet<string> = new Set(['receptacle', 'blank', 'none']);

type Switches = Record<string, 'on' | 'off' | 'up' | 'down'>;

const isMulti = ({ existing }: SwitchPosition) => existing === 'three-way' || existing === 'four-way';

type Asked = Partial<Reading> & Pick<Reading, 'tool' | 'points' | 'arrangement'>;

/** Tests that are feasible and could bear on the cores still open, by what the conductors seem to be. */
export function candidatesFor(
  problem: Problem,
  grades: readonly CoreGrade[],
  open: readonly number[],
): Candidate[] {
  const maker = new Maker(problem, grades);
  maker.lamps();
  for (const core of new Set([...open, ...open.flatMap((entry) => netMates(problem, entry))])) {
    maker.withTheFarSwitch(core);
    maker.live(core);
    maker.dead(core);
    maker.acrossItsCable(core);
    maker.apartFromItsJoint(core);
  }
  return unique(maker.made);
}

/** Writes candidates down in the states a test wants: breakers all on or off, the far switches named. */
class Maker {
  readonly made: Candidate[] = [];
  private readonly number: ReadonlyMap<string, number>;
  private readonly circuits: string[];
  private readonly farStates: Switches[];
  /** What the far switches are asked to be where one state of theirs will do. */
  private readonly usual: Switches;
  private readonly lampsOut: Record<string, 'out'>;
  /** A low-impedance meter would trip the protection of some circuits. */
  private readonly volts: 'volts' | 'volts-low-z';

  constructor(
    private readonly problem: Problem,
    private readonly grades: readonly CoreGrade[],
  ) {
    this.number = new Map(problem.cores.map((core, at) => [core.id, at]));
    this.circuits = problem.circuits.flatMap((circuit) => circuit.id ?? []);
    const far = [...new Set(problem.positions.flatMap((position) => position.partners))];
    const farAll = (state: 'up' | 'down') => Object.fromEntries(far.map((key) => [key, state]));
    this.farStates = far.length > 0 ? [farAll('up'), farAll('down')] : [{}];
    this.usual = far.length > 0 ? farAll('up') : {};
    this.lampsOut = Object.fromEntries(
      problem.positions.flatMap((entry) => entry.loadIds).map((load) => [load, 'out' as const]),
    );
    this.volts = problem.trips.size > 0 ? 'volts' : 'volts-low-z';
    const neutral = (core: number) => grades[core]?.role === 'neutral';
    this.carries = new Set([
      ...problem.carries,
      ...[...problem.coreTerminals].flatMap(([position, cores]) =>
        cores.filter(neutral).length >= 2 ? [position] : [],
      ),
    ]);
  }

  /**
   * Whether a device carries a neutral: with it out that neutral is open, and everything that shares it has
   * to be off.
   */
  private readonly carries: ReadonlySet<number>;

  private all(state: 'on' | 'off'): Record<string, 'on' | 'off'> {
    return Object.fromEntries(this.circuits.map((id) => [id, state]));
  }

  private add(asked: Asked, subject: string, purpose: NextReason['purpose'], minutes: number): void {
    const { problem } = this;
    // No dead test while something is alive with every breaker of the box off.
    if (asked.tool === 'ohms' && problem.alive) return;
    const opens =
      asked.arrangement === 'device-out' && asked.position !== undefined && this.carries.has(asked.position);
    const live = Object.values(asked.breakers ?? {}).includes('on');
    if (opens && live) return;
    const bearing: Reading = { id: '', at: '', value: 'quiet', ...asked };
    const arrangement = arrangementOf(bearing, this.number);
    const points = asked.points.map((point): Point => pointOf(problem, this.number, asked.tool, point));
    // What is printed names a device that can be taken out, and all that has to be off for it.
    const position =
      asked.arrangement === 'device-out' ? (asked.position ?? problem.anyPosition ?? undefined) : undefined;
    const also = opens ? Object.fromEntries(problem.alsoOff.map((id) => [id, 'off' as const])) : {};
    const reading = {
      ...bearing,
      ...(position === undefined ? {} : { position }),
      breakers: { ...asked.breakers, ...also },
    };
    this.made.push({
      test: { id: '', reading, arrangement, points, key: testKey(asked, arrangement) },
      reason: { code: 'tells-most', subject, purpose },
      minutes: this.standsSo(asked) ? Math.min(minutes, MINUTES.asItStands) : minutes,
    });
  }

  /**
   * Whether the box was left just so by the latest reading: the test is a look away. Clips are fitted dead,
   * every time.
   */
  private standsSo({ arrangement, position, breakers = {}, loads = {}, method }: Asked): boolean {
    const now = this.problem.standsNow;
    if (!now || now.arrangement !== arrangement) return false;
    if (arrangement !== 'in-place' && (arrangement !== 'device-out' || now.position !== (position ?? null)))
      return false;
    const same =
      Object.entries(breakers).every(([id, state]) => now.breakers[id] === state) &&
      Object.keys(loads).every((id) => now.out.includes(id));
    return same && (method !== 'clipped' || !Object.values(breakers).includes('on'));
  }

  private idOf(core: number): string {
    return entryAt(this.problem.cores, core).id;
  }

  /**
   * With the device out that hangs on the core's net, and the switches that stay in all off: what is read
   * then does not go through them.
   * @param away how the far switches stand
   */
  private opened(core: number, away: Switches): Pick<Asked, 'arrangement' | 'position' | 'switches'> {
    const position = positionOf(this.problem, core);
    const rest = this.restOff(position);
    const switches = { ...rest, ...away };
    return {
      arrangement: 'device-out',
      ...(position === null ? {} : { position }),
      ...(Object.keys(switches).length > 0 ? { switches } : {}),
    };
  }

  /** The same for a test with breakers on: in place where taking the device out would open a neutral. */
  private aliveAt(core: number, away: Switches): Pick<Asked, 'arrangement' | 'position' | 'switches'> {
    const opened = this.opened(core, away);
    if (opened.position === undefined || !this.carries.has(opened.position)) return opened;
    const switches = { ...this.restOff(null), ...away };
    return { arrangement: 'in-place', ...(Object.keys(switches).length > 0 ? { switches } : {}) };
  }

  private restOff(but: number | null): Switches {
    const rest = this.problem.positions.filter(
      ({ index, existing, nets }) => index !== but && nets.size > 0 && !SWITCHLESS.has(existing),
    );
    return Object.fromEntries(
      rest.map((position) => [String(position.index), isMulti(position) ? 'up' : 'off']),
    );
  }

  /**
   * Lamps against the old switches, near and far. The other switches stand the other way, so that it is told
   * whose lamp it is.
   */
  lamps(): void {
    const wired = this.problem.positions.filter((position) => position.nets.size > 0);
    const switched = wired.filter((position) => !SWITCHLESS.has(position.existing));
    for (const position of wired) {
      const others = (own: boolean) =>
        Object.fromEntries(
          switched
            .filter((other) => other !== position)
            .map((other) => [String(other.index), isMulti(other) ? 'up' : own ? 'off' : 'on'] as const),
        );
      for (const load of position.loadIds)
        for (const on of [true, false])
          for (const away of this.farStates) {
            const state = isMulti(position)
              ? on
                ? ('up' as const)
                : ('down' as const)
              : on
                ? ('on' as const)
                : ('off' as const);
            const own = switched.includes(position) ? { [String(position.index)]: state } : {};
            const switches = { ...others(on), ...own, ...away };
            this.add(
              {
                tool: 'lamp',
                arrangement: 'in-place',
                method: 'observed',
                breakers: this.all('on'),
                switches,
                points: [load],
              },
              load,
              'load',
              MINUTES.inPlace,
            );
          }
    }
  }

  /** With breakers on: alive, alive to earth, gone with which breaker, supply from a line. */
  live(core: number): void {
    const id = this.idOf(core);
    const traveler = this.farStates.length > 1 && this.grades[core]?.role === 'traveler';
    for (const away of this.farStates) {
      const on = { ...this.aliveAt(core, away), breakers: this.all('on') };
      this.add(
        { tool: 'indicator', method: 'non-contact', ...on, points: [id] },
        id,
        'line',
        MINUTES.indicatorOut,
      );
      const clipped: Asked = { tool: this.volts, method: 'clipped', ...on, points: [id, 'reference'] };
      this.add(clipped, id, traveler ? 'traveler' : 'line', MINUTES.clippedOut);
    }
    const read = { tool: this.volts, method: 'clipped' as const, ...this.aliveAt(core, this.usual) };
    // Each breaker off alone tells whose line it is; all of them off tells that it is gone.
    for (const circuit of this.circuits)
      this.add(
        { ...read, breakers: { ...this.all('on'), [circuit]: 'off' }, points: [id, 'reference'] },
        id,
        'gone',
        MINUTES.clippedOut,
      );
    for (const line of this.mostly('line'))
      if (this.apart(line, core))
        this.add(
          { ...read, breakers: this.all('on'), points: [this.idOf(line), id] },
          id,
          'neutral',
          MINUTES.clippedOut,
        );
  }

  /** With every breaker off: ohms to earth and to the likeliest neutral, lamps in and lamps out. */
  dead(core: number): void {
    const id = this.idOf(core);
    this.ohms(core, [id, 'reference'], 'neutral', this.grades[core]?.role === 'neutral' ? 'both' : 'in');
    for (const neutral of this.mostly('neutral').slice(0, 1))
      if (this.apart(neutral, core)) this.ohms(core, [id, this.idOf(neutral)], 'load', 'both');
  }

  /** What the far switch joins to the lamp or to nothing: ohms that change with it, dead. */
  withTheFarSwitch(core: number): void {
    if (this.farStates.length < 2 || this.grades[core]?.role !== 'traveler') return;
    const to = [
      'reference',
      ...this.mostly('neutral')
        .slice(0, 1)
        .map((neutral) => this.idOf(neutral)),
    ];
    for (const away of this.farStates)
      for (const point of to)
        this.add(
          {
            tool: 'ohms',
            method: 'clipped',
            ...this.opened(core, away),
            breakers: this.all('off'),
            points: [this.idOf(core), point],
          },
          this.idOf(core),
          'traveler',
          MINUTES.ohmsDead,
        );
  }

  /** A load between two conductors of its own cable (no neutral there) is read across them. */
  acrossItsCable(core: number): void {
    if (this.grades[core]?.role !== 'load') return;
    for (const mate of this.problem.cables[this.problem.cores[core]?.cable ?? -1]?.cores ?? [])
      if (mate !== core && this.grades[mate]?.role === 'load')
        this.ohms(core, [this.idOf(core), this.idOf(mate)], 'load', 'both');
  }

  /** Hot conductors of one joint are told apart one by one; neutrals are left joined. */
  apartFromItsJoint(core: number): void {
    const mates = this.problem.nets[this.problem.cores[core]?.net ?? -1]?.cores ?? [];
    const hot = mates.every((mate) =>
      ['line', 'line-on', 'switched-line', 'spare'].includes(this.grades[mate]?.role ?? ''),
    );
    if (mates.length < 2 || !hot) return;
    const id = this.idOf(core);
    const lifted = {
      tool: this.volts,
      method: 'clipped' as const,
      arrangement: 'lifted' as const,
      lifted: [id],
      switches: { ...this.restOff(null), ...this.usual },
    };
    for (const state of ['on', 'off'] as const)
      this.add(
        { ...lifted, breakers: this.all(state), points: [id, 'reference'] },
        id,
        state === 'on' ? 'apart' : 'gone',
        MINUTES.lifted,
      );
  }

  /** @param lamps in, or in and out: with every lamp out nothing but a neutral is near zero to earth */
  private ohms(core: number, points: string[], purpose: NextReason['purpose'], lamps: 'in' | 'both'): void {
    const read: Asked = {
      tool: 'ohms',
      method: 'clipped',
      ...this.opened(core, this.usual),
      breakers: this.all('off'),
      points,
    };
    this.add(read, this.idOf(core), purpose, MINUTES.ohmsDead);
    if (lamps === 'both' && Object.keys(this.lampsOut).length > 0)
      this.add(
        { ...read, loads: this.lampsOut },
        this.idOf(core),
        purpose,
        MINUTES.ohmsDead + MINUTES.lampsOut,
      );
  }

  private apart(one: number, other: number): boolean {
    return one !== other && this.problem.cores[one]?.net !== this.problem.cores[other]?.net;
  }

  /** Cores that seem to have a role, the likeliest first. */
  private mostly(role: CoreGrade['role']): number[] {
    return this.problem.cores
      .flatMap((_, core) => (this.grades[core]?.role === role ? [core] : []))
      .sort((a, b) => (this.grades[b]?.probability ?? 0) - (this.grades[a]?.probability ?? 0));
  }
}

/** One of each question. */
export function unique(candidates: Candidate[]): Candidate[] {
  const seen = new Set<string>();
  return candidates.filter((candidate) => {
    if (seen.has(candidate.test.key)) return false;
    seen.add(candidate.test.key);
    return true;
  });
}

function netMates(problem: Problem, core: number): number[] {
  const net = problem.nets[problem.cores[core]?.net ?? -1];
  return net && net.cores.length <= 6 ? net.cores : [];
}

/** The position whose device has to be out for a core to be read alone: the one its net hangs on. */
function positionOf(problem: Problem, core: number): number | null {
  const net = problem.nets[problem.cores[core]?.net ?? -1];
  const own = net?.terminals[0]?.position;
  if (own !== undefined) return own;
  return problem.positions.find((position) => position.nets.size > 0)?.index ?? null;
}

function pointOf(
  problem: Problem,
  number: ReadonlyMap<string, number>,
  tool: Reading['tool'],
  point: string,
): Point {
  if (tool === 'lamp') return { kind: 'load', loadId: point };
  if (point === 'reference') return { kind: 'reference' };
  if (point === 'box') return { kind: 'box' };
  const core = number.get(point);
  return core === undefined
    ? problem.grounds.some((ground) => ground.id === point)
      ? { kind: 'ground', id: point }
      : { kind: 'elsewhere' }
    : { kind: 'core', core };
}
