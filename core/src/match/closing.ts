import { foundNets, type NetName } from '../electrics/found-nets.js';
import { contentsAsPlanned, netsOfPlan, type PlannedNets, strapsAsPlanned } from '../enclosure/as-planned.js';
import type { BoxContents } from '../enclosure/contents.js';
import { type FillResult, fill } from '../enclosure/fill.js';
import { packing, wireMl } from '../enclosure/space.js';
import { figuresInUse } from '../job/figures.js';
import type { JobLookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { largestSize, USUAL_LENGTH, WIRE } from '../practice/wire.js';
import { perObject } from '../units/kept.js';
import { rounded } from '../units/volume.js';
import { chosenPlaces, type PlannedDevice, type PlannedPlace, plannedDevices } from '../wire/comes-out.js';
import { connectorRange } from '../wire/connectors.js';
import { planJoints } from '../wire/plan.js';
import { terminalNets } from '../wire/terminal-nets.js';
import type { PlaceFacts } from './place.js';
import { NO_REASONS, type Reason } from './reason.js';

/**
 * Whether the box closes with a device in it and the others as selected, else as found: the code's count, and
 * the estimate of packing. Devices alike to the count share one answer a place, whatever the strategy: where
 * their terminals go is told by the findings, not by it.
 */
export class Closing {
  private readonly answers = new Map<string, FillResult>();
  private readonly beside = new Map<string, { ml: number; capacityMl: number | null }>();
  private readonly others: PlannedPlace[];
  private readonly quick: QuickFill | null;
  private readonly okByWidth = new Map<number, boolean>();
  private most: ReturnType<typeof mostInBox> | undefined;

  constructor(private readonly place: PlaceFacts) {
    this.quick = QuickFill.for(place.box, place.known);
    this.others = chosenPlaces(place.box, place.known).filter(
      (entry) => entry.position.index !== place.position.index,
    );
  }

  fillRule(device: Device): readonly Reason[] {
    const { job } = this.place.known;
    if (!figuresInUse(job).fill) return NO_REASONS;
    if (this.surelyOk(device)) return NO_REASONS;
    const key = signature(device, deepDevicesCount(job));
    let result = this.answers.get(key);
    if (!result) {
      result = this.fillWith(device);
      this.answers.set(key, result);
    }
    if (result.verdict === 'ok') return NO_REASONS;
    const facts = {
      used: result.usedMl,
      capacity: result.capacityMl,
      over: result.remainingMl === null ? null : -result.remainingMl,
      method: result.method,
      units: profileOf(job).units,
    };
    if (result.verdict === 'over') return [{ rule: 'fill', outcome: 'block', code: 'fill.over', facts }];
    return [
      {
        rule: 'fill',
        outcome: 'unproved',
        code: result.capacityMl === null ? 'fill.not-read' : 'fill.no-standing',
        facts,
      },
    ];
  }

  /** True where the count is kept even with every yoke at the largest conductor of the box. */
  private surelyOk(device: Device): boolean {
    if (!this.quick) return false;
    const width = device.mount === 'box' ? device.gangs : 0;
    let ok = this.okByWidth.get(width);
    if (ok === undefined) {
      ok = this.quick.atMost(this.planned(device)).verdict === 'ok';
      this.okByWidth.set(width, ok);
    }
    return ok;
  }

  private planned(device: Device): PlannedPlace[] {
    return [...this.others, { position: this.place.position, device, selection: { strategy: 'single' } }];
  }

  /** An estimate, not a code rule: it stops a device only where no count exists. */
  packingRule(device: Device): readonly Reason[] {
    const { known } = this.place;
    const stops = figuresInUse(known.job).fill === null;
    if (this.surelyCloses(device)) return NO_REASONS;
    const occupancy = this.occupancyWith(device);
    if (occupancy === null)
      return stops
        ? [{ rule: 'packing', outcome: 'unproved', code: 'packing.not-read', facts: {} }]
        : NO_REASONS;
    if (occupancy <= figuresInUse(known.job).packing.closes + 1e-9) return NO_REASONS;
    const facts = { percent: rounded(occupancy * 100, 1) };
    return [{ rule: 'packing', outcome: stops ? 'block' : 'warn', code: 'packing.will-not-close', facts }];
  }

  /**
   * Devices with the same terminals leave the same beside their bodies. Null where the volume has not been
   * read.
   */
  occupancyWith(device: Device): number | null {
    const key = packingSignature(device);
    let beside = this.beside.get(key);
    if (!beside) {
      const { box, known } = this.place;
      const contents = contentsAsPlanned(box, this.planned(device), known);
      const { shares } = packing(contents);
      beside = {
        ml: shares.bodiesMl - bodyMl(device) + shares.connectorsMl + shares.conductorsMl,
        capacityMl: contents.capacity.ml,
      };
      this.beside.set(key, beside);
    }
    return beside.capacityMl ? (beside.ml + bodyMl(device)) / beside.capacityMl : null;
  }

  /**
   * True where even more than can come together closes: every conductor kept, a lead or tail to each
   * terminal, a joint of the largest connector for each net, and one more for every four members, since no
   * bundle of three has to be split. Saves the joints of most devices in most boxes.
   */
  private surelyCloses(device: Device): boolean {
    const { known } = this.place;
    this.most ??= mostInBox(this.place, this.others);
    if (!this.most) return false;
    const { capacityMl, othersMl, nets, ends, connectorMl, tailMl } = this.most;
    const { foldedShare, closes } = figuresInUse(known.job).packing;
    let leads = 0;
    for (const terminal of device.terminals)
      leads +=
        terminal.form === 'lead'
          ? wireMl(
              WIRE[terminal.size ?? profileOf(known.job).sizes.lead].diameter,
              terminal.length ?? USUAL_LENGTH,
            )
          : tailMl;
    const splits = (ends + 2 * device.terminals.length) / 4;
    const joints = (nets + splits) * connectorMl + (splits * tailMl) / foldedShare;
    return othersMl + bodyMl(device) + joints + leads / foldedShare <= closes * capacityMl;
  }

  /** The whole plan, or the quick way where it is known to come to the same; a test compares the two. */
  fillWith(device: Device): FillResult {
    const { box, known } = this.place;
    const planned = this.planned(device);
    return this.quick ? this.quick.of(planned) : fill(contentsAsPlanned(box, planned, known));
  }
}

/**
 * The count of a box where connectors do not count: beside the yokes it holds the same whatever devices stand
 * at the same positions, and so are the largest conductors of its nets.
 */
export class QuickFill {
  private readonly shared = new Map<string, { contents: BoxContents; nets: PlannedNets }>();
  private readonly results = new Map<string, FillResult>();
  private readonly nets = new Map<number, Map<Device, readonly (readonly [string, NetName | undefined])[]>>();

  constructor(
    private readonly box: Box,
    private readonly known: JobLookup,
  ) {}

  /** Null where joints have to be planned for the count. */
  static for(box: Box, known: JobLookup): QuickFill | null {
    return connectorsDoNotCount(box, known) ? new QuickFill(box, known) : null;
  }

  private sharedOf(planned: readonly PlannedPlace[]): {
    contents: BoxContents;
    nets: PlannedNets;
  } {
    const { box, known } = this;
    const positions = placesKey(planned);
    let shared = this.shared.get(positions);
    if (!shared) {
      shared = {
        contents: contentsAsPlanned(box, planned, known),
        nets: netsOfPlan(planJoints(box, planned, known)),
      };
      this.shared.set(positions, shared);
    }
    return shared;
  }

  /** The count with every yoke at the largest conductor of the box: {@link of} is never more. */
  atMost(planned: readonly PlannedPlace[]): FillResult {
    const { box, known } = this;
    const { contents, nets } = this.sharedOf(planned);
    const size = largestSize(box.conductors.map((conductor) => conductor.size));
    const straps = strapsAsPlanned(box, planned, { ...nets, terminals: new Map() }, known);
    return fill({ ...contents, straps: straps.map((strap) => ({ ...strap, size })) });
  }

  of(planned: readonly PlannedPlace[]): FillResult {
    const { box, known } = this;
    const positions = placesKey(planned);
    const shared = this.sharedOf(planned);
    const terminals = new Map<string, NetName | undefined>();
    for (const plan of plannedDevices(planned))
      for (const [name, net] of this.netsOf(plan)) terminals.set(name, net);
    const straps = strapsAsPlanned(box, planned, { ...shared.nets, terminals }, known);
    const yokes = straps.map((strap) => `${strap.positions.join('+')}=${strap.gangs}x${strap.size}`);
    const key = `${positions};${yokes.join()}`;
    let result = this.results.get(key);
    if (!result) {
      result = fill({ ...shared.contents, straps });
      this.results.set(key, result);
    }
    return result;
  }

  private netsOf(plan: PlannedDevice): readonly (readonly [string, NetName | undefined])[] {
    const own = this.nets.get(plan.position.index) ?? new Map();
    this.nets.set(plan.position.index, own);
    let nets = own.get(plan.device);
    if (!nets) {
      nets = [...terminalNets(this.box, plan, this.known)].map(
        ([terminal, net]) => [`${plan.position.index}.${terminal.id}`, net] as const,
      );
      own.set(plan.device, nets);
    }
    return nets;
  }
}

/** Which positions are planned, and where a device comes at all. */
const placesKey = (planned: readonly PlannedPlace[]): string =>
  planned.map(({ position, device }) => `${position.index}${device ? '' : '-'}`).join();

/** What is in the box at most beside the device at this place; null where its volume has not been read. */
function mostInBox({ box, position, known }: PlaceFacts, others: readonly PlannedPlace[]) {
  const found = contentsAsPlanned(box, others, known);
  if (!found.capacity.ml) return null;
  // What is here now leaves the box.
  const straps = found.straps.map((strap) => ({
    ...strap,
    bodies: strap.bodies.filter((body) => body.position !== position.index),
  }));
  const contents = { ...found, straps };
  const widest = Math.max(
    WIRE[profileOf(known.job).sizes.lead].diameter,
    ...[...contents.conductors, ...contents.leads].map(({ size }) => WIRE[size].diameter),
  );
  const tailMl = wireMl(widest, USUAL_LENGTH);
  const connectorMl = Math.max(
    0,
    ...connectorRange(known.job.catalogue.connectors).map((connector) => connector.ml),
  );
  const { shares } = packing(contents);
  return {
    capacityMl: found.capacity.ml,
    othersMl: shares.bodiesMl + shares.conductorsMl,
    nets: foundNets(box, known).names.size + box.joints.length,
    ends: contents.conductors.length * 2 + contents.leads.length,
    connectorMl,
    tailMl,
  };
}

/** What a device takes of the box behind its face, mL; one at the fitting or on the wall nothing. */
export function bodyMl({ mount, body }: Device): number {
  return mount === 'box' ? (body.width * body.height * body.depth) / 1000 : 0;
}

/** What of a device the estimate depends on beside its body. */
export const packingSignature = perObject(
  (device: Device) =>
    `${signature(device, false)};${device.terminals.map((terminal) => terminal.length ?? '').join()}`,
);

/**
 * A count by yokes knows connectors only as terminal blocks, and not in every edition; where none can come
 * up, the joints of a plan do not matter to it.
 */
function connectorsDoNotCount(box: Box, known: JobLookup): boolean {
  const { job } = known;
  const { fill } = figuresInUse(job);
  if (fill?.scheme !== 'by-yoke') return false;
  if (!fill.terminalBlocksCount) return true;
  return (
    !job.brief?.connectors?.includes('terminal-block') &&
    box.joints.every((joint) => joint.connector !== 'terminal-block')
  );
}

/** Whether a deep device counts by its depth instead of by its yoke. */
export function deepDevicesCount(job: Job): boolean {
  return figuresInUse(job).fill?.scheme === 'by-pair';
}

const ofFace = perObject((device: Device) => {
  const terminals = device.terminals.map((terminal) =>
    [terminal.role, terminal.form, terminal.size, terminal.holds, terminal.channel, terminal.optional].join(
      ',',
    ),
  );
  return [
    device.mount,
    device.gangs,
    device.channels
      .map((channel) => `${channel.kind}${channel.ratings.map((rating) => rating.kinds.join('')).join()}`)
      .join(),
    ...terminals,
  ].join(';');
});

/** What of a device the count depends on: its width, its terminals and channels, and in `ca` its depth. */
export function signature(device: Device, byDepth: boolean): string {
  const text = ofFace(device);
  return byDepth ? `${text};${device.body.depth}` : text;
}
