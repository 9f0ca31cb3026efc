import type { Cause, JoiningRemedy, Look, Seen } from '@inventario/core';
import { DEEDS, EYE, LISTS, LUCK, SAYS, STOPS } from './behaviour.js';
import type { Seeded } from './random.js';

/**
 * The hidden truth of one device on its way into the network: what stands in its way, and what of it can not
 * be put right here today. Tries, looks and deeds show and change it as they would in a house.
 */
export class HiddenTruth {
  private readonly standing: Set<Cause>;
  private lastStop: Cause | 'luck' | null = null;

  constructor(
    causes: Iterable<Cause>,
    /** Causes that cannot be put right: no repeater at hand, the former owner not to be reached. */
    private readonly beyondHelp: ReadonlySet<Cause>,
    private readonly random: Seeded,
  ) {
    this.standing = new Set(causes);
  }

  causes(): Cause[] {
    return STOPS.filter((cause) => this.standing.has(cause));
  }

  set(cause: Cause, stands: boolean): void {
    if (stands) this.standing.add(cause);
    else this.standing.delete(cause);
  }

  /** @param also what else stands in the way at this moment, of the router, the hub or the circuit */
  attempt(also: readonly Cause[] = []): { seen: Seen; listed: boolean; cause: Cause | 'luck' | null } {
    const cause =
      STOPS.find((one) => this.standing.has(one) || also.includes(one)) ??
      (this.random.chance(LUCK) ? 'luck' : null);
    const seen = cause === null ? 'joined' : this.random.drawn(SAYS[cause]);
    this.lastStop = seen === 'joined' ? null : cause;
    return { seen, cause, listed: seen === 'joined' || this.isListed() };
  }

  /** Whether a look finds something wrong; of the list of clients, that it does not name the device. */
  look(look: Look, also: readonly Cause[] = []): boolean {
    if (look === 'listed') return !this.isListed();
    const { cause, misses, imagines } = EYE[look];
    const stands = this.standing.has(cause) || also.includes(cause);
    return this.random.chance(stands ? 1 - misses : imagines);
  }

  /** What comes of a deed: `cannot` where it is beyond help. It may be done and not help. */
  deed(remedy: JoiningRemedy): 'done' | 'cannot' {
    const deed = DEEDS[remedy];
    if (!deed) return 'done';
    if (this.beyondHelp.has(deed.cause)) return 'cannot';
    if (this.random.chance(deed.works)) this.standing.delete(deed.cause);
    return 'done';
  }

  private isListed(): boolean {
    return this.lastStop !== null && this.random.chance(LISTS[this.lastStop]);
  }
}
