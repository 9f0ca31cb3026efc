import type { Wiring } from '../../electrics/arranged.js';
import { type Arranged, arrange } from '../../electrics/arranged.js';
import type { Arrangement, Problem, Test } from '../problem/vocabulary.js';

/** What all explanations of one box share: how it is arranged, and which far switches its readings name. */
export class Stage {
  private readonly arranged = new Map<string, Arranged>();
  private readonly byArrangement = new WeakMap<Arrangement, Arranged>();
  /** Switches of other boxes that the readings name. */
  readonly foreign: readonly string[];
  /** A switch in the middle with a far switch on each side, and nobody knows which is on which. */
  readonly middle: { cables: readonly [number, number]; keys: readonly [string, string] } | null;
  private readonly farKeyCache = new Map<number, string[]>();

  constructor(
    readonly problem: Problem,
    private readonly wiring: Wiring,
    tests: readonly Test[],
  ) {
    const keys = tests
      .flatMap((test) => [...test.arrangement.switches.keys()])
      .filter((key) => key.includes('/'));
    this.foreign = [...new Set(keys)];
    this.middle = middleOf(problem);
  }

  /** One object for all arrangements with the same key: what is kept of a state is kept by it. */
  arrangedAs(arrangement: Arrangement): Arranged {
    let known = this.byArrangement.get(arrangement);
    if (!known) {
      known = this.arranged.get(arrangement.key) ?? arrange(this.problem.positions, this.wiring, arrangement);
      this.arranged.set(arrangement.key, known);
      this.byArrangement.set(arrangement, known);
    }
    return known;
  }

  /** Whether the far switch of a cable is named, and which way its states together stand. */
  farState(cable: number, arrangement: Arrangement, swapped = false): boolean | null {
    const side = this.middle ? this.middle.cables.indexOf(cable) : -1;
    const keys =
      side < 0 || !this.middle ? this.farKeys(cable) : [this.middle.keys[(side === 0) !== swapped ? 0 : 1]];
    if (keys.length === 0 || keys.some((key) => !arrangement.switches.has(key))) return null;
    return keys.reduce((state, key) => state !== arrangement.switches.get(key), false);
  }

  private farKeys(cable: number): string[] {
    let keys = this.farKeyCache.get(cable);
    if (!keys) {
      const { problem } = this;
      const nets = new Set(problem.cables[cable]?.cores.map((core) => problem.cores[core]?.net));
      const here = problem.positions.filter((position) =>
        [...position.nets.values()].some((net) => nets.has(net)),
      );
      const partners = [
        ...new Set((here.length > 0 ? here : problem.positions).flatMap((position) => position.partners)),
      ];
      const end = problem.cables[cable]?.end;
      const along = end?.kind === 'box' ? partners.filter((key) => key.startsWith(`${end.boxId}/`)) : [];
      const only = this.foreign.length === 1 ? [...this.foreign] : [];
      keys = [along, partners, only].find((found) => found.length > 0) ?? [];
      this.farKeyCache.set(cable, keys);
    }
    return keys;
  }

  farIsParted(cable: number, arrangement: Arrangement): boolean {
    if (arrangement.farParted.size === 0) return false;
    const end = this.problem.cables[cable]?.end;
    return end?.kind === 'box' && arrangement.farParted.has(end.boxId);
  }
}

/**
 *     far/1 ══ cable A ══ [four-way] ══ cable B ══ far2/1        or the other way about, where no run tells
 */
function middleOf(problem: Problem): Stage['middle'] {
  const position = problem.positions.find(
    ({ existing, partners }) => existing === 'four-way' && partners.length === 2,
  );
  if (!position) return null;
  const nets = new Set(position.nets.values());
  const cables = problem.cables.flatMap(({ cores }, cable) =>
    cores.some((core) => nets.has(problem.cores[core]?.net ?? -1)) ? [cable] : [],
  );
  const [a, b] = cables;
  const [one, other] = position.partners;
  if (cables.length !== 2 || a === undefined || b === undefined || one === undefined || other === undefined)
    return null;
  // A run that tells where one of them goes tells both.
  const leads = (cable: number, key: string) => {
    const end = problem.cables[cable]?.end;
    return end?.kind === 'box' && key.startsWith(`${end.boxId}/`);
  };
  if (leads(a, one) || leads(b, other) || leads(a, other) || leads(b, one)) return null;
  return { cables: [a, b], keys: [one, other] };
}
