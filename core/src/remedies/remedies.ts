import { assessBox, type BoxAssessment } from '../enclosure/assess.js';
import { type JobLookup, lookup, placeKey } from '../job/lookup.js';
import type { CatalogueEnclosure, Device, Part } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { ConnectorKind, Strategy } from '../job/schema/primitives.js';
import type { Box, Position } from '../job/schema/survey.js';
import { matchPlace } from '../match/match.js';
import { profileOf } from '../practice/profiles.js';
import { standardBoxes } from '../practice/standard-boxes.js';
import { millilitres } from '../units/volume.js';

export type Trouble = 'fill' | 'depth' | 'packing';

export type RemedyKind =
  | 'deeper-box'
  | 'ring'
  | 'connectors'
  | 'device-terminals'
  | 'two-wire'
  | 'smaller-device'
  | 'tie-through'
  | 'module-at-fitting';

/** What a remedy changes besides the box: said beside it, so that nothing comes as a surprise. */
export type SideEffect =
  | { code: 'wall-opened' }
  | { code: 'stands-proud'; facts: { mm: number } }
  | { code: 'joints-remade'; facts: { joints: number } }
  | { code: 'neutral-not-used' }
  | { code: 'no-wired-control' }
  | { code: 'at-fitting' }
  | { code: 'other-family'; facts: { from: string; to: string } }
  | { code: 'parts'; facts: { parts: string[] } };

interface RemedyFigures {
  usedMl: number | null;
  capacityMl: number | null;
  availableMm: number | null;
  neededMm: number;
  occupancy: number | null;
}

/** A way out of a box that does not close, applied and computed anew. */
export interface Remedy {
  kind: RemedyKind;
  /** What is bought or done, by name: an enclosure, a part, a kind of connector, a device. */
  name: string;
  /** The record it is: enclosure, part, connector kind, device. */
  id: string;
  /** For a device: where, and in which strategy. */
  place: { position: number; strategy: Strategy } | null;
  /** In the job's minor units, against what is planned now; null where no price is known. */
  price: number | null;
  before: RemedyFigures;
  after: RemedyFigures;
  clears: Trouble[];
  leaves: Trouble[];
  also: SideEffect[];
}

/** What does not close in a box. */
export function troublesOf(result: Pick<BoxAssessment, 'verdict' | 'depth' | 'packing'>): Trouble[] {
  return [
    ...(result.verdict === 'over' ? (['fill'] as const) : []),
    ...(result.depth.verdict === 'too-deep' ? (['depth'] as const) : []),
    ...(result.packing.verdict === 'will-not-close' ? (['packing'] as const) : []),
  ];
}

/** So many of a kind are offered: the cheapest that clear most. */
const MOST_OF_A_KIND = 2;

/**
 * Ways out for a box that does not close, as planned where devices are chosen, else as found. Each candidate
 * is applied, the box is computed anew, and only what clears some trouble without making another is kept;
 * those that clear all come first, then the cheaper.
 */
export function remedies(box: Box, known: JobLookup): Remedy[] {
  const ways = new WaysOut(box, known);
  if (ways.troubles.length === 0) return [];
  const found = [...ways.boxes(), ...ways.rings(), ...ways.connectors(), ...ways.devices()];
  const kinds = new Map<RemedyKind, number>();
  return found.sort(byWorth).filter(({ kind }) => {
    const count = (kinds.get(kind) ?? 0) + 1;
    kinds.set(kind, count);
    return count <= MOST_OF_A_KIND;
  });
}

function byWorth(a: Remedy, b: Remedy): number {
  const price = (remedy: Remedy) => remedy.price ?? Number.POSITIVE_INFINITY;
  if (a.leaves.length !== b.leaves.length) return a.leaves.length - b.leaves.length;
  if (price(a) !== price(b)) return price(a) < price(b) ? -1 : 1;
  return a.also.length - b.also.length || (a.id < b.id ? -1 : 1);
}

class WaysOut {
  readonly troubles: Trouble[];
  private readonly which: 'found' | 'planned';
  private readonly before: BoxAssessment;
  private readonly chosen: { position: Position; device: Device; strategy: Strategy }[];

  constructor(
    private readonly box: Box,
    private readonly known: JobLookup,
  ) {
    this.chosen = box.positions.flatMap((position) => {
      const selection = known.selections.get(placeKey(box.id, position.index));
      const device = selection?.deviceId ? known.devices.get(selection.deviceId) : undefined;
      return selection && device ? [{ position, device, strategy: selection.strategy ?? 'single' }] : [];
    });
    this.which = this.chosen.length > 0 ? 'planned' : 'found';
    this.before = assessBox(box, known, this.which);
    this.troubles = troublesOf(this.before);
  }

  /** The box as it would be; none when that clears nothing or makes new trouble. */
  private tried(
    what: Pick<Remedy, 'kind' | 'name' | 'id' | 'place' | 'price' | 'also'>,
    box: Box,
    job: Job,
  ): Remedy[] {
    const after = assessBox(box, lookup(job), this.which);
    const leaves = troublesOf(after);
    const clears = this.troubles.filter((trouble) => !leaves.includes(trouble));
    if (clears.length === 0 || leaves.some((trouble) => !this.troubles.includes(trouble))) return [];
    return [{ ...what, before: figures(this.before), after: figures(after), clears, leaves }];
  }

  /** The job with this box changed. */
  private withBox(box: Box, more: Partial<Job> = {}): Job {
    const { job } = this.known;
    return { ...job, boxes: job.boxes.map((other) => (other.id === box.id ? box : other)), ...more };
  }

  /**
   * Larger or deeper boxes of as many gangs, from the catalogue and the practice's own table, the smallest
   * that help.
   */
  boxes(): Remedy[] {
    const { job } = this.known;
    const { gangs, capacity } = this.box.enclosure;
    const listed = new Map<string, CatalogueEnclosure>();
    for (const entry of [...standardBoxes(profileOf(job)), ...job.catalogue.enclosures])
      if (entry.practice === job.practice) listed.set(entry.id, entry);
    const catalogue = { ...job.catalogue, enclosures: [...listed.values()] };
    const own = capacity.from === 'standard' ? capacity.enclosureId : null;
    return [...listed.values()]
      .filter(
        (entry) =>
          entry.id !== own &&
          entry.forDevices !== false &&
          entry.depth !== undefined &&
          gangs % entry.gangs === 0 &&
          !(entry.gangs > gangs),
      )
      .sort((a, b) => (millilitres(a) ?? 0) - (millilitres(b) ?? 0))
      .flatMap((entry): Remedy[] => {
        const { rings, setBack, ...rest } = this.box.enclosure;
        const enclosure: Box['enclosure'] = {
          ...rest,
          ...(setBack ? { setBack } : {}),
          capacity: { from: 'standard', enclosureId: entry.id },
          depth: entry.depth as number,
          material: entry.material ?? rest.material,
        };
        const box = { ...this.box, enclosure };
        const price = typeof entry.price === 'number' ? entry.price * Math.max(1, gangs / entry.gangs) : null;
        const what = {
          kind: 'deeper-box' as const,
          name: entry.name,
          id: entry.id,
          place: null,
          price,
          also: [{ code: 'wall-opened' as const }],
        };
        return this.tried(what, box, this.withBox(box, { catalogue }));
      })
      .slice(0, MOST_OF_A_KIND);
  }

  /** Rings, raised covers and extensions: parts with a depth, and a volume where they are marked. */
  rings(): Remedy[] {
    return (
      this.known.job.catalogue.parts
        .filter(
          (part): part is Part & { depth: number } => part.where !== 'fitting' && part.depth !== undefined,
        )
        // Marked in cubic inches they are made for those boxes, in mL for the others.
        .filter((part) => (part.in3 !== undefined) === (profileOf(this.known.job).volumesIn === 'in3'))
        .flatMap((part): Remedy[] => {
          const { rings = [] } = this.box.enclosure;
          const volume =
            part.mL !== undefined ? { mL: part.mL } : part.in3 !== undefined ? { in3: part.in3 } : {};
          const box = {
            ...this.box,
            enclosure: { ...this.box.enclosure, rings: [...rings, { depth: part.depth, ...volume }] },
          };
          const also: SideEffect[] = [{ code: 'stands-proud', facts: { mm: part.depth } }];
          const what = {
            kind: 'ring' as const,
            name: part.name,
            id: part.id,
            place: null,
            price: part.price,
            also,
          };
          return this.tried(what, box, this.withBox(box));
        })
    );
  }

  /** Every joint made anew with another kind of connector. */
  connectors(): Remedy[] {
    const { job } = this.known;
    return (['lever', 'twist-on', 'terminal-block'] as const).flatMap((kind): Remedy[] => {
      const others = (job.brief?.connectors ?? []).filter((other: ConnectorKind) => other !== kind);
      const box = { ...this.box, joints: this.box.joints.map((joint) => ({ ...joint, connector: kind })) };
      if (this.box.joints.every((joint) => joint.connector === kind)) return [];
      const also: SideEffect[] = [{ code: 'joints-remade', facts: { joints: box.joints.length } }];
      const what = { kind: 'connectors' as const, name: kind, id: kind, place: null, price: null, also };
      return this.tried(
        what,
        box,
        this.withBox(box, { brief: { ...job.brief, connectors: [kind, ...others] } }),
      );
    });
  }

  /**
   * Other devices that fit the place, in every way the catalogue offers: smaller, without a neutral, at the
   * fitting, bulbs instead.
   */
  devices(): Remedy[] {
    const { job } = this.known;
    return this.chosen.flatMap(({ position, device, strategy }): Remedy[] => {
      const now = device.price;
      const others = matchPlace(this.box, position, this.known).filter(
        (candidate) =>
          (candidate.verdict === 'fits' || candidate.verdict === 'fits-with') &&
          candidate.partners.length === 0 &&
          !(candidate.deviceId === device.id && candidate.strategy === strategy),
      );
      return others.flatMap((candidate): Remedy[] => {
        const other = this.known.devices.get(candidate.deviceId) as Device;
        const parts = candidate.with.flatMap(
          (id) => job.catalogue.parts.find((part) => part.id === id) ?? [],
        );
        const selections = job.selections.map((selection) =>
          selection.boxId === this.box.id && selection.position === position.index
            ? { ...selection, deviceId: other.id, strategy: candidate.strategy }
            : selection,
        );
        const what = {
          kind: kindOf(device, other, candidate.strategy),
          name: other.model,
          id: other.id,
          place: { position: position.index, strategy: candidate.strategy },
          price: other.price - now + parts.reduce((sum, part) => sum + part.price, 0),
          also: sideEffects(device, other, candidate.strategy, parts),
        };
        return this.tried(what, this.box, { ...job, selections });
      });
    });
  }
}

function kindOf(from: Device, to: Device, strategy: Strategy): RemedyKind {
  if (strategy === 'bulb-controller') return 'tie-through';
  if (strategy === 'module' || to.mount === 'fitting') return 'module-at-fitting';
  if (from.needs.neutral && !to.needs.neutral) return 'two-wire';
  const leads = (device: Device) => device.terminals.some((terminal) => terminal.form === 'lead');
  return leads(from) && !leads(to) ? 'device-terminals' : 'smaller-device';
}

function sideEffects(from: Device, to: Device, strategy: Strategy, parts: readonly Part[]): SideEffect[] {
  return [
    ...(strategy === 'bulb-controller' ? [{ code: 'no-wired-control' as const }] : []),
    ...(strategy === 'module' || to.mount === 'fitting' ? [{ code: 'at-fitting' as const }] : []),
    ...(from.needs.neutral && !to.needs.neutral ? [{ code: 'neutral-not-used' as const }] : []),
    ...(from.family !== to.family
      ? [{ code: 'other-family' as const, facts: { from: from.family, to: to.family } }]
      : []),
    ...(parts.length > 0
      ? [{ code: 'parts' as const, facts: { parts: parts.map((part) => part.name) } }]
      : []),
  ];
}

function figures({ usedMl, capacityMl, depth, packing }: BoxAssessment): RemedyFigures {
  return {
    usedMl,
    capacityMl,
    availableMm: depth.availableMm,
    neededMm: depth.neededMm,
    occupancy: packing.occupancy,
  };
}
