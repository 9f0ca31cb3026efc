import { type FoundNets, foundNets } from '../../electrics/found-nets.js';
import { figuresInUse } from '../../job/figures.js';
import { type JobLookup, placeKey } from '../../job/lookup.js';
import type { Device, Terminal } from '../../job/schema/catalogue.js';
import type { Load } from '../../job/schema/job.js';
import { assignChannels } from '../../loads/channels.js';
import { isTwoWire } from '../../loads/terminal-needs.js';
import { joinsLineToLoad, type PlannedDevice, plannedDevices } from '../comes-out.js';
import { groupUse } from '../group-use.js';
import { sidesOfSwitch } from '../once-wired.js';
import { coreNode, terminalNode } from './graph.js';
import type { BoxToProve } from './vocabulary.js';

/** What the device of a place promises, said in what its terminals are to be on. Nodes as in `graph.ts`. */
export interface DevicePromise {
  boxId: string;
  position: number;
  device: Device;
  /** The circuit that its place has. */
  circuitId: string | undefined;
  /** Terminals that are to be on the supply of a circuit, by node. */
  lines: { node: string; circuitId: string | undefined; leg: number; needed: boolean }[];
  neutrals: { node: string; needed: boolean }[];
  /** Terminals that are to be grounded; what needs no ground may have one. */
  grounds: string[];
  /** A contact between a line and a load terminal, and the loads it works. */
  channels: { id: number; from: string; to: string; loadIds: string[] }[];
  /** Fed through its lamps. */
  twoWire: boolean;
  /** Its line and load may be exchanged. */
  eitherWay: boolean;
  /** What hung on either side of the old switch, where nobody knows which is the line. */
  sides: readonly (readonly string[])[] | null;
  signals: string[];
  /** Terminals nothing may be on. */
  alone: string[];
  /** Watts its lamps lack, and no bypass part makes up for. */
  lacksWatts: boolean;
}

export interface UnitPromise {
  devices: DevicePromise[];
  /** Loads that are to have power whenever their breaker is on. */
  fedAlways: ReadonlySet<string>;
  /** Loads that a planned device works. */
  worked: ReadonlySet<string>;
}

/** What strategies, devices and findings promise of some boxes together; the plan is not looked at. */
export function promiseOf(boxes: readonly BoxToProve[], known: JobLookup): UnitPromise {
  const devices: DevicePromise[] = [];
  const fedAlways = new Set<string>();
  for (const entry of boxes)
    for (const plan of plannedDevices(entry.places)) {
      if (joinsLineToLoad(plan)) for (const id of loadIdsOf(entry, plan, known)) fedAlways.add(id);
      if (plan.device.mount === 'box') devices.push(devicePromise(entry, plan, known));
    }
  for (const { box, places } of boxes)
    for (const { position, device, selection } of places) {
      const group = known.groups.get(placeKey(box.id, position.index));
      if (!device && group && ['bulb-controller', 'module'].includes(selection.strategy))
        for (const id of group.loadIds) fedAlways.add(id);
    }
  const worked = new Set(devices.flatMap(({ channels }) => channels.flatMap(({ loadIds }) => loadIds)));
  return { devices, fedAlways, worked };
}

function loadIdsOf({ box }: BoxToProve, { position }: PlannedDevice, known: JobLookup): readonly string[] {
  const group = known.groups.get(placeKey(box.id, position.index));
  return position.loadIds.length > 0 ? position.loadIds : (group?.loadIds ?? []);
}

function devicePromise(entry: BoxToProve, plan: PlannedDevice, known: JobLookup): DevicePromise {
  return new Promised(entry, plan, known).all();
}

class Promised {
  private readonly found: FoundNets;
  private readonly use: ReturnType<typeof useOf>;
  private readonly circuitId: string | undefined;
  private readonly loads: Load[];
  private readonly fed: ReturnType<typeof assignChannels>['fed'];

  constructor(
    private readonly entry: BoxToProve,
    private readonly plan: PlannedDevice,
    private readonly known: JobLookup,
  ) {
    const { position, device, selection } = plan;
    this.found = foundNets(entry.box, known);
    this.use = useOf(entry, plan, known);
    this.circuitId = this.use ? this.use.circuitId : this.found.supplyOf(position.index);
    this.loads =
      this.isMain && !joinsLineToLoad(plan)
        ? loadIdsOf(entry, plan, known).flatMap((id) => known.loads.get(id) ?? [])
        : [];
    this.fed = assignChannels(device, this.loads, figuresInUse(known.job).margin, selection.channels).fed;
  }

  all(): DevicePromise {
    const { device, position, selection } = this.plan;
    const twoWire = isTwoWire(device);
    return {
      boxId: this.entry.box.id,
      position: position.index,
      device,
      circuitId: this.circuitId,
      lines: this.lines(),
      neutrals: this.of('neutral').map((terminal) => ({
        node: this.node(terminal),
        needed: this.wanted('neutral') && (device.needs.neutral || !terminal.optional),
      })),
      grounds: device.needs.ground === 'none' ? [] : this.of('ground').map((terminal) => this.node(terminal)),
      channels: this.channels(),
      twoWire,
      eitherWay: device.interchangeableLineLoad === true,
      sides: this.sides(),
      signals: this.hears ? this.of('traveler').map((terminal) => this.node(terminal)) : [],
      alone: [
        ...this.of('load').filter((terminal) => this.loadsOf(terminal).length === 0),
        ...this.of('sense'),
        ...(this.use && !this.hears ? this.of('traveler') : []),
      ].map((terminal) => this.node(terminal)),
      lacksWatts: twoWire && this.fed.some((one) => lacks(one, selection.with ?? [])),
    };
  }

  private get isMain(): boolean {
    return !this.use || this.use.role === 'main';
  }

  /** Whether devices of the strategy speak over a wire, and those chosen can. */
  private get hears(): boolean {
    const { strategy } = this.plan.selection;
    if (strategy !== 'both-ends') return strategy === 'companion' || strategy === 'keep-mechanical';
    const group = this.known.groups.get(placeKey(this.entry.box.id, this.plan.position.index));
    const devices = (group?.places ?? []).flatMap(({ boxId, position }) => {
      const id = this.known.selections.get(placeKey(boxId, position))?.deviceId;
      return this.known.devices.get(id ?? '') ?? [];
    });
    return (
      devices.length > 1 &&
      devices.every(({ terminals }) => terminals.some(({ role }) => role === 'traveler'))
    );
  }

  private of(role: Terminal['role']): Terminal[] {
    return this.plan.device.terminals.filter((terminal) => terminal.role === role);
  }

  private node({ id }: Terminal): string {
    return terminalNode(this.entry.box.id, `${this.plan.position.index}.${id}`);
  }

  private loadsOf({ channel }: Terminal): readonly Load[] {
    const id = channel ?? this.plan.device.channels[0]?.id;
    return this.fed.find((one) => one.channel.id === id)?.loads ?? [];
  }

  /** A partner wants only what the record of the strategy lists. */
  private wanted(role: 'line' | 'neutral'): boolean {
    const { device, selection } = this.plan;
    const listed = device.multiLocation?.find(({ strategy }) => strategy === selection.strategy)?.partner;
    return this.isMain || listed?.[role] !== false;
  }

  private lines(): DevicePromise['lines'] {
    const { index } = this.plan.position;
    const pair = (this.known.circuits.get(this.circuitId ?? '')?.poles ?? 1) > 1;
    return this.of('line').map((terminal, at) => {
      const [load] = this.loadsOf(terminal);
      const net = terminal.channel === undefined || !load ? undefined : this.found.loadNet(index, [load.id]);
      return {
        node: this.node(terminal),
        circuitId: (net && this.found.circuitBefore(index, net)) ?? this.circuitId,
        leg: pair && terminal.channel === undefined ? at : 0,
        needed:
          this.wanted('line') &&
          (!terminal.optional || (terminal.channel !== undefined && load !== undefined)),
      };
    });
  }

  private channels(): DevicePromise['channels'] {
    const lines = this.of('line');
    return this.of('load').flatMap((terminal) => {
      const own = this.loadsOf(terminal);
      const from =
        lines.find(({ channel }) => channel !== undefined && channel === terminal.channel) ??
        lines.find(({ channel }) => channel === undefined);
      if (!from || own.length === 0) return [];
      return [
        {
          id: terminal.channel ?? 1,
          from: this.node(from),
          to: this.node(terminal),
          loadIds: own.map(({ id }) => id),
        },
      ];
    });
  }

  private sides(): DevicePromise['sides'] {
    const { position, device } = this.plan;
    const { box } = this.entry;
    const told =
      this.found.supplyOf(position.index) !== undefined &&
      this.loads.every(({ id }) => this.found.loadNet(position.index, [id]) !== undefined);
    if (!device.interchangeableLineLoad || this.use || told) return null;
    return sidesOfSwitch(box, position.index).map((side) => side.map(({ id }) => coreNode(box.id, id)));
  }
}

/** What a group makes of the place; undefined outside one. */
function useOf({ box }: BoxToProve, { position, selection }: PlannedDevice, known: JobLookup) {
  const group = known.groups.get(placeKey(box.id, position.index));
  if (!group || selection.strategy === 'single') return undefined;
  return groupUse(group, known).places.find(
    (place) => place.boxId === box.id && place.position === position.index,
  );
}

function lacks(
  { channel, loads }: ReturnType<typeof assignChannels>['fed'][number],
  parts: readonly string[],
): boolean {
  const watts = loads.reduce((sum, { count, wattsEach }) => sum + count * wattsEach, 0);
  if (watts >= (channel.minWatts ?? 0)) return false;
  const { bypassPartId } = channel;
  return (
    bypassPartId === undefined ||
    !(parts.includes(bypassPartId) || loads.some(({ fitted }) => fitted?.includes(bypassPartId)))
  );
}
