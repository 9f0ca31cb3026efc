import { instantOf } from '../job/events.js';
import { conductorsById, labelsOf } from '../job/lookup.js';
import { breakersKey, pointsKey, stanceKey } from '../job/readings.js';
import type { PracticeId } from '../job/schema/primitives.js';
import type { Box, Reading } from '../job/schema/survey.js';
import type { PracticeProfile } from '../practice/profile.js';
import { profileOf } from '../practice/profiles.js';
import { isGround } from '../practice/wire.js';
import { KeptWhile, sameEntries } from '../units/kept.js';

/** Under this a point counts as dead, V. */
export const DEAD_VOLTS = 5;
/**
 * From these shares of the nominal voltage a point shows life: on a low-impedance meter, and on one that
 * ghosts can fool.
 */
const LIVE_SHARE = { lowImpedance: 0.05, highImpedance: 0.5 };

/** A reading that shows a conductor of the box energised although every circuit of the box was off. */
export interface LiveReading {
  reading: Reading;
  /** ms */
  at: number;
  /** Conductors of the box it speaks of; none for a lamp. */
  conductorIds: string[];
  /** The breaker that a later reading found behind it. */
  source: string | null;
}

/** A known earth by test lead, the box, or a ground of the box. */
export function isEarth(box: Box, point: string | undefined): boolean {
  if (point === 'reference' || point === 'box') return true;
  const conductor = point === undefined ? undefined : conductorsById(box).get(point);
  return conductor !== undefined && isGround(conductor, labelsOf(box).get(conductor.id));
}

const NOTHING: readonly string[] = [];

/** What of the box a reading shows alive; null where it shows nothing alive. */
function aliveIn(box: Box, reading: Reading, practice: PracticeProfile): readonly string[] | null {
  const { tool, value, points } = reading;
  if (tool === 'lamp')
    return (value === 'lit' || value === 'dim') && worksLoad(box, points[0]) ? NOTHING : null;
  if (tool === 'breaker' || tool === 'ohms') return null;
  const own = points.filter((point) => conductorsById(box).has(point));
  if (own.length === 0 && !points.includes('box')) return null;
  if (tool === 'indicator') return value === 'alert' ? own : null;
  const { nominal } = practice.supply;
  const from = tool === 'volts-low-z' ? LIVE_SHARE.lowImpedance : LIVE_SHARE.highImpedance;
  if (typeof value !== 'number') return null;
  return (tool === 'volts-low-z' ? value > from * nominal : value >= from * nominal) ? own : null;
}

function worksLoad(box: Box, loadId: string | undefined): boolean {
  return (
    loadId !== undefined &&
    (box.positions.some((position) => position.loadIds.includes(loadId)) ||
      box.labels.some((label) => label.loadIds?.includes(loadId)))
  );
}

function isDead({ tool, value }: Reading): boolean {
  if (tool === 'volts' || tool === 'volts-low-z') return typeof value === 'number' && value < DEAD_VOLTS;
  return value === 'quiet' || value === 'dark';
}

/** What the readings of one box tell about power, up to an instant. */
export class BoxReadings {
  readonly readings: readonly Reading[];
  /** Alive with every circuit of the box off, in the order of the file. */
  readonly live: readonly LiveReading[];
  /**
   * Circuits that readings show in the box: alive with every circuit of the box off and that one alone on; or
   * found as a source.
   */
  readonly shown: ReadonlySet<string>;

  /** @param until ms; later readings do not count */
  constructor(
    private readonly box: Box,
    practice: PracticeProfile,
    until = Number.POSITIVE_INFINITY,
  ) {
    this.readings = box.readings.filter((reading) => instantOf(reading) <= until);
    const live: LiveReading[] = [];
    const shown = new Set<string>();
    for (const reading of this.readings) {
      const conductorIds = aliveIn(box, reading, practice);
      if (!conductorIds || this.isRefuted(reading)) continue;
      const named = Object.entries(reading.breakers ?? {});
      if (!box.circuitIds.every((id) => reading.breakers?.[id] === 'off')) continue;
      const on = named.filter(([, state]) => state === 'on').map(([id]) => id);
      if (on.length === 1) shown.add(on[0] as string);
      if (on.length > 0 || box.circuitIds.length === 0) continue;
      const source = this.sourceOf(reading);
      if (source !== null) shown.add(source);
      live.push({ reading, at: instantOf(reading), conductorIds: [...conductorIds], source });
    }
    this.live = live;
    this.shown = shown;
  }

  private isLater(reading: Reading, than: Reading): boolean {
    const [a, b] = [instantOf(reading), instantOf(than)];
    return a === b ? this.readings.indexOf(reading) > this.readings.indexOf(than) : a > b;
  }

  /**
   * An alert counts no more once low impedance reads that conductor under 5 V to earth later, in the same
   * state.
   */
  private isRefuted(reading: Reading): boolean {
    if (reading.tool !== 'indicator') return false;
    const [stance, breakers] = [stanceKey(reading), breakersKey(reading)];
    return this.readings.some(
      (other) =>
        this.isDeadToEarth(other, reading.points[0]) &&
        this.isLater(other, reading) &&
        stanceKey(other) === stance &&
        breakersKey(other) === breakers,
    );
  }

  private isDeadToEarth(reading: Reading, point: string | undefined): boolean {
    if (reading.tool !== 'volts-low-z' || !isDead(reading) || point === undefined) return false;
    const [one, other] = reading.points;
    return (one === point && isEarth(this.box, other)) || (other === point && isEarth(this.box, one));
  }

  /**
   * The breaker behind a live reading: the one more that is off in a later reading of the same points that
   * shows them dead.
   */
  private sourceOf(live: Reading): string | null {
    const stance = stanceKey(live);
    const points = pointsKey(live);
    const later = this.readings
      .filter((other) => this.isLater(other, live) && stanceKey(other) === stance)
      .sort((a, b) => instantOf(a) - instantOf(b));
    for (const other of later) {
      const same =
        (other.tool === live.tool || other.tool === 'volts-low-z') &&
        pointsKey(other) === points &&
        isDead(other);
      if (!same && !(live.tool === 'indicator' && this.isDeadToEarth(other, live.points[0]))) continue;
      const more = oneMoreOff(live.breakers ?? {}, other.breakers ?? {});
      if (more !== null) return more;
    }
    return null;
  }
}

/** The one breaker that is named off beside all that stood as before; null where anything else differs. */
function oneMoreOff(
  before: Readonly<Record<string, string>>,
  after: Readonly<Record<string, string>>,
): string | null {
  const more = Object.keys(after).filter((id) => before[id] === undefined);
  const [only] = more;
  if (more.length !== 1 || only === undefined || after[only] !== 'off') return null;
  return Object.entries(before).every(([id, state]) => after[id] === state) ? only : null;
}

const kept = new KeptWhile<Box, BoxReadings>(sameEntries);

/** All readings of a box, kept as long as the box object lives. */
export function boxReadings(box: Box, practice: PracticeProfile): BoxReadings {
  return kept.of(box, [practice], () => new BoxReadings(box, practice));
}

/**
 * Whether one reading of a box shows life with every breaker of it off, and no breaker was found behind it.
 */
export function showsLife(box: Box, reading: Reading, job: { practice: PracticeId }): boolean {
  return new BoxReadings(box, profileOf(job)).live.some(
    (live) => live.reading.id === reading.id && live.source === null,
  );
}
