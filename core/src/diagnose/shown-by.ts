import type { Element, Network } from '../electrics/network.js';
import type { Reading } from '../job/schema/survey.js';
import {
  acrossLoad,
  coldOhms,
  conducts,
  dividedVolts,
  INDICATOR,
  LAMP,
  loadOutcomes,
  OHMS,
  ohmBand,
  VOLTS,
} from '../practice/instruments.js';
import { profileOf } from '../practice/profiles.js';
import type { JointPlan } from '../wire/joint-plan.js';
import { coreNode } from '../wire/proof/graph.js';
import { entryOf, type Stage } from './candidates.js';
import { Copper, deviceKey, type Slip, type Solved } from './copper.js';
import { withoutDevice } from './edits.js';
import type { Scene, WiredBox } from './scene.js';

/** What is read: with which instrument, where, and how the box stands. */
export type Read = Pick<Reading, 'tool' | 'points'> & { stage: Stage };

/** What instruments show at a box under each slip, each box solved once. */
export class ShownBy {
  private readonly solved = new Map<Slip, Map<Stage, { copper: Copper; run: Solved }>>();
  private readonly entry: WiredBox;

  constructor(private readonly scene: Scene) {
    this.entry = entryOf(scene);
  }

  /** The chance of each outcome of a reading, were a slip what is wrong. */
  row(read: Read, slip: Slip): Readonly<Record<string, number>> {
    const { run } = this.at(slip, read.stage);
    const [first = '', second = ''] = read.points;
    switch (read.tool) {
      case 'lamp':
        return this.lampRow(first, slip, read.stage);
      case 'indicator':
        return this.indicatorRow(first, run);
      case 'ohms':
        return this.ohmRow(first, second, run, slip);
      default:
        return this.voltRow(first, second, run, read.tool === 'volts' ? 'high' : 'low');
    }
  }

  private at(slip: Slip, stage: Stage): { copper: Copper; run: Solved } {
    const stages = this.solved.get(slip) ?? new Map<Stage, { copper: Copper; run: Solved }>();
    this.solved.set(slip, stages);
    let known = stages.get(stage);
    if (!known) {
      known = this.solve(slip, stage);
      stages.set(stage, known);
    }
    return known;
  }

  private solve(slip: Slip, stage: Stage): { copper: Copper; run: Solved } {
    const { scene, entry } = this;
    const { box } = entry;
    const own = deviceKey(scene.own);
    const others = scene.devices.map(deviceKey).filter((key) => key !== own);
    const plan = (slip.plans?.get(box.id) ?? entry.plan) as JointPlan;
    const arranged: Slip =
      stage === 'device-out'
        ? {
            ...slip,
            plans: new Map([...(slip.plans ?? []), [box.id, withoutDevice(plan, scene.own.position)]]),
            takenOut: own,
          }
        : stage === 'dead'
          ? { ...slip, breakersOff: scene.known.job.circuits.map(({ id }) => id) }
          : slip;
    const copper = new Copper(scene.boxes, scene.devices, arranged, scene.known);
    const run = copper.solve({ on: new Set(stage === 'on' ? [...others, own] : others), up: new Set() });
    // A breaker that trips says so before anything is read.
    if (run.shorts.length === 0 || stage === 'dead') return { copper, run };
    const tripped = run.shorts.flatMap((at) => scene.known.job.circuits[at]?.id ?? []);
    const after = new Copper(
      scene.boxes,
      scene.devices,
      { ...arranged, breakersOff: [...(arranged.breakersOff ?? []), ...tripped] },
      scene.known,
    );
    return { copper: after, run: after.solve({ on: new Set(others), up: new Set() }) };
  }

  private node(point: string): string {
    return point === 'reference' ? 'E' : coreNode(this.entry.box.id, point);
  }

  private lampRow(loadId: string, slip: Slip, stage: Stage): Readonly<Record<string, number>> {
    const { copper, run } = this.at(slip, stage);
    const sound = this.at(SOUND, 'on');
    const lamp = copper.hanging.find((one) => one.loadId === loadId);
    if (!lamp || copper.isOut(lamp)) return LAMP.dark;
    const full = sound.run.across(lamp.hot, lamp.back) || 1;
    const share = run.across(lamp.hot, lamp.back) / full;
    return share >= 0.85 ? LAMP.lit : share <= 0.1 ? LAMP.dark : LAMP.divided;
  }

  private indicatorRow(id: string, run: Solved): Readonly<Record<string, number>> {
    const volts = run.volts(this.node(id));
    const { conductors } = this.entry.box;
    const cable = conductors.find((core) => core.id === id)?.cableId;
    const beside = conductors.some(
      (core) =>
        core.cableId === cable && core.id !== id && Math.abs(run.volts(this.node(core.id)) ?? 0) > 0.85,
    );
    const alert = this.alert(volts, beside);
    return { alert, quiet: 1 - alert };
  }

  private alert(volts: number | null, beside: boolean): number {
    if (volts === null && beside) return profileOf(this.scene.known.job).floatingAlert;
    if (Math.abs(volts ?? 0) > 0.5) return INDICATOR.source;
    return beside && volts !== null ? INDICATOR.referenceBesideLive : INDICATOR.reference;
  }

  private voltRow(one: string, other: string, run: Solved, meter: 'high' | 'low') {
    const [a, b] = [run.volts(this.node(one)), other === 'reference' ? 0 : run.volts(this.node(other))];
    if (a === null || b === null)
      return Math.abs(a ?? b ?? 0) > 0.85 ? VOLTS.sourceToFloating[meter] : VOLTS.floatingAlone[meter];
    const share = Math.abs(a - b);
    if (share > 0.99 && share < 1.01) return VOLTS.sourceToReference[meter];
    return share < 1e-6 ? VOLTS.same[meter] : dividedVolts(share);
  }

  private ohmRow(one: string, other: string, { network, number }: Solved, slip: Slip) {
    const [a, b] = [number(this.node(one)), number(this.node(other))];
    if (network.same(a, b) || (network.isReference(a) && network.isReference(b))) return OHMS.same;
    if (network.isLineSide(a) || network.isLineSide(b))
      return this.isHome(network, a) && this.isHome(network, b) ? OHMS.lineSide : OHMS.open;
    const value = network.resistance(a, b, (element) => this.coldOhms(element));
    if (value > OPEN_FROM) return OHMS.open;
    const path = network.path(a, b);
    const loads = (path?.loads ?? []).flatMap((id) => this.scene.known.loads.get(id) ?? []);
    const unsure = loads.find((load) => coldOhms(load, this.supplyVolts) === null);
    if (unsure) return acrossLoad(loadOutcomes(unsure, this.supplyVolts));
    // What hangs on a line carried on is not on record.
    if (path && !path.known && loads.length === 0 && !slip.badContact && value <= 2000)
      return acrossLoad(['to-50', 'to-2000']);
    return acrossLoad([ohmBand(value)]);
  }

  /** Tied to the panel, or joined to it by something. */
  private isHome(network: Network, node: number): boolean {
    if (network.isLineSide(node) || network.isReference(node)) return true;
    return network.path(node, this.reference(network)) !== null;
  }

  private reference(network: Network): number {
    for (const { a, b } of network.elements) {
      if (network.isReference(a)) return a;
      if (network.isReference(b)) return b;
    }
    return -1;
  }

  private get supplyVolts(): number {
    return this.scene.known.circuits.get(this.scene.own.circuitId ?? '')?.volts ?? USUAL_VOLTS;
  }

  private coldOhms({ loadId, ohms }: Element): number {
    const load = loadId === null ? undefined : this.scene.known.loads.get(loadId);
    if (!load) return ohms;
    return coldOhms(load, this.supplyVolts) ?? (conducts(load.kind) ? USUAL_WINDING : DRIVER);
  }
}

/** More ohms than this are open to a meter. */
const OPEN_FROM = 2e6;
const USUAL_VOLTS = 120;
/** A winding, and the input of a driver, ohms. */
const USUAL_WINDING = 100;
const DRIVER = 1e6;

/** Nothing is wrong. */
const SOUND: Slip = {};
