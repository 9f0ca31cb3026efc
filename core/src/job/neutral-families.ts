import { perObject } from '../units/kept.js';
import type { Circuit, Job } from './schema/job.js';

/**
 * Circuits that share a neutral with each other, directly or through others: one set for each such family, by
 * circuit.
 */
export class NeutralFamilies {
  private readonly families = new Map<string, ReadonlySet<string>>();

  constructor(circuits: readonly Circuit[]) {
    const beside = new Map<string, string[]>(circuits.map(({ id }) => [id, []]));
    for (const { id, sharesNeutralWith } of circuits)
      for (const other of sharesNeutralWith ?? []) {
        beside.get(id)?.push(other);
        beside.get(other)?.push(id);
      }
    for (const { id } of circuits) {
      if (this.families.has(id)) continue;
      const family = new Set([id]);
      for (const member of family) for (const other of beside.get(member) ?? []) family.add(other);
      for (const member of family) this.families.set(member, family);
    }
  }

  /** The circuit itself and all it shares a neutral with. */
  of(circuitId: string): ReadonlySet<string> {
    return this.families.get(circuitId) ?? new Set([circuitId]);
  }
}

const familiesOf = perObject((circuits: Job['circuits']) => new NeutralFamilies(circuits));

export const neutralFamilies = (job: Pick<Job, 'circuits'>): NeutralFamilies => familiesOf(job.circuits);

/** Whether two circuits share a neutral and trip together: then it is the neutral of each of them. */
export function sharesByCommonTrip(job: Pick<Job, 'circuits'>, one: string, other: string): boolean {
  if (one === other || !neutralFamilies(job).of(one).has(other)) return false;
  return [one, other].every((id) => job.circuits.find((circuit) => circuit.id === id)?.commonTrip === true);
}
