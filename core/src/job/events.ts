import { perObject } from '../units/kept.js';
import type { Job, JobEvent } from './schema/job.js';

/** An event with its instant (ms; an event without one counts as the earliest) and its place in the file. */
export interface Logged {
  event: JobEvent;
  at: number;
  index: number;
}

/** Ids that corrections strike from the record. */
function struckEvents(events: readonly JobEvent[]): ReadonlySet<string> {
  return new Set(events.flatMap((event) => (event.kind === 'correction' && event.of ? [event.of] : [])));
}

/** The instant of an event or reading, ms; one without counts as the earliest. */
export function instantOf(entry: { at?: string | undefined }): number {
  return entry.at === undefined ? Number.NEGATIVE_INFINITY : Date.parse(entry.at);
}

/** By the clock; at one instant the later in the file is the later. */
function byClock(a: Logged, b: Logged): number {
  return a.at === b.at ? a.index - b.index : a.at - b.at;
}

/**
 * The events of a job up to an instant, found by what they are about; made once and asked by everything that
 * reads the record.
 */
export class EventRecord {
  private readonly struck: ReadonlySet<string>;
  private readonly groups = new Map<string, Logged[]>();
  readonly byId = new Map<string, Logged>();

  /** @param until ms; what is later does not count */
  constructor(job: Pick<Job, 'events'>, until = Number.POSITIVE_INFINITY) {
    const logged = job.events
      .map((event, index) => ({ event, at: instantOf(event), index }))
      .filter(({ at }) => at <= until);
    this.struck = struckEvents(logged.map(({ event }) => event));
    for (const entry of logged) {
      const { kind, circuitId, boxId, id } = entry.event;
      if (id !== undefined) this.byId.set(id, entry);
      const key = `${kind}|${(kind === 'switched' ? circuitId : boxId) ?? NO_SUBJECT}`;
      const group = this.groups.get(key);
      if (group) group.push(entry);
      else this.groups.set(key, [entry]);
    }
    for (const group of this.groups.values()) group.sort(byClock);
  }

  isStruck({ event }: Pick<Logged, 'event'>): boolean {
    return event.id !== undefined && this.struck.has(event.id);
  }

  /** Everything of a kind about a box, or about a circuit for `switched`, by the clock; struck ones too. */
  all(kind: string, id: string): readonly Logged[] {
    return this.groups.get(`${kind}|${id}`) ?? NOTHING;
  }

  /** The same without what was struck. */
  standing(kind: string, id: string): Logged[] {
    return this.all(kind, id).filter((entry) => !this.isStruck(entry));
  }

  /** Everything of a kind that is about no one box or circuit, by the clock, without what was struck. */
  ofKind(kind: string): Logged[] {
    return this.standing(kind, NO_SUBJECT);
  }

  /** The latest by the clock that was not struck. */
  latest(kind: string, id: string): Logged | undefined {
    return this.standing(kind, id).at(-1);
  }
}

const NOTHING: readonly Logged[] = [];
const NO_SUBJECT = '';

const recordOf = perObject((events: Job['events']) => new EventRecord({ events }));

/** The whole record of a job, kept as long as its list of events lives. */
export const eventRecord = (job: Pick<Job, 'events'>): EventRecord => recordOf(job.events);

/** Boxes that an event, not corrected since, shows as mounted. */
export function mountedBoxes(job: Pick<Job, 'events' | 'boxes'>): Set<string> {
  const record = eventRecord(job);
  return new Set(job.boxes.flatMap(({ id }) => (record.latest('mounted', id) ? [id] : [])));
}

/** The switching that a circuit's state comes from: the last by the clock that no correction struck. */
export function lastSwitching(job: Pick<Job, 'events'>, circuitId: string): JobEvent | undefined {
  return eventRecord(job).latest('switched', circuitId)?.event;
}

/** The last of some entries by the clock; at one instant the later in the file. */
export function lastByClock<Entry extends { at?: string | undefined }>(
  entries: readonly Entry[],
): Entry | undefined {
  return entries.reduce<Entry | undefined>(
    (last, entry) => (last === undefined || instantOf(entry) >= instantOf(last) ? entry : last),
    undefined,
  );
}
