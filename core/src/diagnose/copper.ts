import { Network } from '../electrics/network.js';
import type { JobLookup } from '../job/lookup.js';
import type { Load } from '../job/schema/job.js';
import { demand } from '../loads/demand.js';
import { foundContacts } from '../wire/proof/found-behaviour.js';
import { Graph, terminalNode } from '../wire/proof/graph.js';
import { NodeNumbers, tiePoles } from '../wire/proof/poles.js';
import type { DevicePromise } from '../wire/proof/promise.js';
import type { Contact } from '../wire/proof/states.js';
import type { BoxToProve } from '../wire/proof/vocabulary.js';

/** A loose end that still touches, ohms. */
const BAD_CONTACT = 2000;
/** What a device draws for itself where its record does not say, W. */
const USUAL_STANDBY = 0.5;
/** What hangs on a line that is carried on, or in a socket nobody described, W. */
const USUAL_WATTS = 60;
/** A device runs from this share of its voltage. */
const RUNS_FROM = 0.6;

/** What a fault makes of the boxes as planned. */
export interface Slip {
  /** Plans of boxes in the place of their own. */
  plans?: ReadonlyMap<string, BoxToProve['plan']>;
  /** Nodes that touch, and nodes in bad contact. */
  touching?: readonly (readonly [string, string])[];
  badContact?: readonly (readonly [string, string])[];
  breakersOff?: readonly string[];
  /** Devices that do not run, by key, and how their contacts stay; or that run with them shut. */
  dead?: { key: string; contacts: 'open' | 'shut' };
  /** A device that is not there, by key. */
  takenOut?: string;
  welded?: string;
  lampsOut?: readonly string[];
}

/** How everything that can be worked stands. */
export interface Worked {
  /** Devices told to be on, by key. */
  on: ReadonlySet<string>;
  /** Far switches that stand up. */
  up: ReadonlySet<string>;
}

/** Something that hangs between two nodes. */
export interface Hanging {
  id: string;
  loadId: string | null;
  /** The place whose device works it; null: it is fed whenever its breaker is on. */
  place: string | null;
  hot: string;
  back: string;
  ohms: number;
}

export interface Solved {
  network: Network;
  running: ReadonlySet<string>;
  /** Devices that fell when their own contact closed. */
  fell: ReadonlySet<string>;
  /** Circuits whose breaker trips, by their place in the job, at any moment on the way there. */
  shorts: readonly number[];
  volts: (node: string) => number | null;
  /** The number of a node in the network. */
  number: (node: string) => number;
  across: (a: string, b: string) => number;
}

export const deviceKey = ({ boxId, position }: Pick<DevicePromise, 'boxId' | 'position'>) =>
  `${boxId}/${position}`;

/** Boxes as they would be wired after a slip, with all that hangs on them. */
export class Copper {
  readonly graph: Graph;
  readonly hanging: readonly Hanging[];
  private readonly contacts: Contact[];
  private readonly boxes: readonly BoxToProve[];
  private readonly devices: readonly DevicePromise[];
  private readonly numbers: NodeNumbers;
  private readonly known: JobLookup;

  constructor(
    boxes: readonly BoxToProve[],
    devices: readonly DevicePromise[],
    private readonly slip: Slip,
    known: JobLookup,
  ) {
    this.known = known;
    this.devices = devices.filter((device) => deviceKey(device) !== slip.takenOut);
    this.boxes = boxes.map((entry) => {
      const plan = slip.plans?.get(entry.box.id);
      return plan ? { ...entry, plan } : entry;
    });
    this.graph = new Graph(this.boxes, known);
    for (const [a, b] of slip.touching ?? []) this.graph.joined.merge(a, b);
    this.numbers = new NodeNumbers(this.graph.joined);
    this.contacts = this.boxes.flatMap((entry) =>
      foundContacts(entry, (index) => !entry.out.has(index), known),
    );
    this.hanging = this.whatHangs();
  }

  solve({ on, up }: Worked): Solved {
    const fell = new Set<string>();
    let closed = new Set<string>();
    let running = this.running(closed, up);
    const shorts = new Set(this.network(closed, up).shorts);
    for (let turn = 0; turn < 6; turn++) {
      const next = new Set([...running].filter((key) => on.has(key)));
      if (next.size === closed.size && [...next].every((key) => closed.has(key))) break;
      const before = running;
      closed = next;
      for (const circuit of this.network(closed, up).shorts) shorts.add(circuit);
      running = this.running(closed, up);
      for (const key of before) if (!running.has(key) && closed.has(key)) fell.add(key);
      if (fell.size > 0) {
        // It opens again, runs again, closes again: what is seen is the time between.
        closed = new Set([...closed].filter((key) => !fell.has(key)));
        running = this.running(closed, up);
        break;
      }
    }
    const network = this.network(closed, up);
    return {
      network,
      running,
      fell,
      shorts: [...shorts],
      number: (node) => this.at(node),
      volts: (node) => network.volts(this.at(node)),
      across: (a, b) => this.across(network, a, b),
    };
  }

  /** A lamp that was taken out, or burnt out. */
  isOut({ loadId }: Hanging): boolean {
    return loadId !== null && this.slip.lampsOut?.includes(loadId) === true;
  }

  /** Devices whose supply is there, with some contacts closed. */
  private running(closed: ReadonlySet<string>, up: ReadonlySet<string>): Set<string> {
    const network = this.network(closed, up);
    return new Set(
      this.devices.flatMap((device) => {
        const key = deviceKey(device);
        if (this.slip.dead?.key === key) return [];
        const supply = supplyOf(device);
        if (!supply) return [key];
        const own = device.twoWire && closed.has(key) ? this.network(without(closed, key), up) : network;
        return this.across(own, ...supply) >= RUNS_FROM ? [key] : [];
      }),
    );
  }

  private across(network: Network, a: string, b: string): number {
    const [one, other] = [network.volts(this.at(a)), network.volts(this.at(b))];
    return one === null || other === null ? 0 : Math.abs(one - other);
  }

  private at(node: string): number {
    return this.numbers.at(node);
  }

  private network(closed: ReadonlySet<string>, up: ReadonlySet<string>): Network {
    const merges: [string, string][] = this.contacts.flatMap(({ key, from, to, when }) =>
      when === 'any' || when === 'on' || (when === 'up') === up.has(key)
        ? [[from, to] as [string, string]]
        : [],
    );
    const { dead, welded, lampsOut = [], badContact = [] } = this.slip;
    for (const device of this.devices) {
      const key = deviceKey(device);
      const shut = welded === key || (dead?.key === key ? dead.contacts === 'shut' : closed.has(key));
      if (shut) for (const { from, to } of device.channels) merges.push([from, to]);
    }
    const elements: { a: string; b: string; ohms: number; loadId: string | null }[] = [
      ...badContact.map(([a, b]) => ({ a, b, ohms: BAD_CONTACT, loadId: null })),
      ...this.hanging
        .filter(({ loadId }) => loadId === null || !lampsOut.includes(loadId))
        .map(({ hot, back, ohms, loadId }) => ({ a: hot, b: back, ohms, loadId })),
      ...this.devices.flatMap((device) => {
        const supply = supplyOf(device);
        const isCut = dead?.key === deviceKey(device);
        return supply && !isCut
          ? [{ a: supply[0], b: supply[1], ohms: this.supplyOhms(device), loadId: null }]
          : [];
      }),
    ];
    // Every node has its number before the network is made, which is as large as they are many.
    for (const node of [...merges.flat(), ...elements.flatMap(({ a, b }) => [a, b]), ...this.graph.poles])
      this.at(node);
    const network = new Network(this.numbers.size + SPARE);
    for (const [a, b] of merges) network.merge(this.at(a), this.at(b));
    const isOn = (circuitId: string) => !this.slip.breakersOff?.includes(circuitId);
    tiePoles(network, this.graph.poles, { at: (node) => this.at(node), isOn }, this.known);
    for (const { a, b, ohms, loadId } of elements)
      network.addElement({ a: this.at(a), b: this.at(b), ohms, loadId, conducts: true });
    return network;
  }

  private supplyOhms({ device }: DevicePromise): number {
    const volts = device.volts[0] ?? 120;
    return volts ** 2 / (device.standbyW || USUAL_STANDBY);
  }

  private whatHangs(): Hanging[] {
    const { loads } = this.known;
    const list: Hanging[] = this.graph.consumers.map(({ id, loadId, boxId, conductorId, hot, back }) => ({
      id: `${id}|${boxId}|${conductorId}`,
      loadId,
      place: loadId === null ? null : this.placeOf(loadId),
      hot,
      back,
      ohms: this.ohmsOf(loadId === null ? undefined : loads.get(loadId), boxId),
    }));
    for (const { box, out } of this.boxes)
      for (const { index, existing, loadIds } of box.positions) {
        if (existing !== 'receptacle' || out.has(index)) continue;
        const node = (terminal: string) => terminalNode(box.id, `${index}.${terminal}`);
        list.push({
          id: `socket:${box.id}/${index}`,
          loadId: null,
          place: null,
          hot: node('hot'),
          back: node('neutral'),
          ohms: this.ohmsOf(loads.get(loadIds[0] ?? ''), box.id),
        });
      }
    return list;
  }

  /** The place whose device works a load. */
  private placeOf(loadId: string): string | null {
    const device = this.devices.find(({ channels }) => channels.some((one) => one.loadIds.includes(loadId)));
    return device ? deviceKey(device) : null;
  }

  private ohmsOf(load: Load | undefined, boxId: string): number {
    const circuit = this.known.circuits.get(this.known.boxes.get(boxId)?.circuitIds[0] ?? '');
    const volts = circuit?.volts ?? 120;
    const watts = load ? demand(load, volts).watts : USUAL_WATTS;
    return volts ** 2 / (watts || USUAL_WATTS);
  }
}

/** Room for nodes asked about later. */
const SPARE = 256;

const without = (keys: ReadonlySet<string>, key: string) =>
  new Set([...keys].filter((other) => other !== key));

/** The ends a device is fed from; null: it has no supply of its own, or none that is wanted. */
function supplyOf({ lines, neutrals, channels, twoWire }: DevicePromise): [string, string] | null {
  const line = lines.find(({ needed }) => needed) ?? lines[0];
  const neutral = neutrals.find(({ needed }) => needed) ?? neutrals[0];
  if (!line) return null;
  if (!twoWire && neutral) return [line.node, neutral.node];
  const second = lines[1];
  if (!twoWire && second) return [line.node, second.node];
  const [channel] = channels;
  return twoWire && channel ? [channel.from, channel.to] : null;
}
