import type { DevicePromise } from '../wire/proof/promise.js';
import { Copper, deviceKey, type Hanging, type Slip, type Solved } from './copper.js';
import type { Scene } from './scene.js';
import type { Shows, SymptomOf } from './vocabulary.js';

/** A lamp is lit from this share of its voltage, dark to this one, bright from that. */
const LIT = 0.85;
const DARK = 0.1;
const BRIGHT = 1.1;

type Level = 'dark' | 'dim' | 'lit' | 'bright';
function levelOf(share: number): Level {
  if (share >= BRIGHT) return 'bright';
  if (share >= LIT) return 'lit';
  return share <= DARK ? 'dark' : 'dim';
}

/** What one way of working the place shows: everything else on, the device told to be off and on. */
interface Look {
  off: Solved;
  on: Solved;
}

export class Behaviour {
  private readonly healthy: Look[];
  private readonly lit: ReadonlyMap<string, number>;
  private readonly key: string;
  private readonly working: DevicePromise;
  /** The far one is for nothing as planned: nobody can tell a fault by it. */
  private isFarIdle = false;

  constructor(private readonly scene: Scene) {
    this.key = deviceKey(scene.own);
    // A partner works the light through the device that feeds it.
    this.working =
      scene.own.channels.length > 0
        ? scene.own
        : (scene.partners.find(({ channels }) => channels.length > 0) ?? scene.own);
    const copper = this.copper({});
    this.healthy = this.look(copper);
    this.lit = new Map(
      copper.hanging.map((one) => [
        one.id,
        Math.max(...this.healthy.map(({ on }) => on.across(one.hot, one.back))),
      ]),
    );
    this.isFarIdle = this.seen(copper, this.healthy).far?.includes('dead') === true;
  }

  private copper(slip: Slip): Copper {
    return new Copper(this.scene.boxes, this.scene.devices, slip, this.scene.known);
  }

  private look(copper: Copper): Look[] {
    const worked = deviceKey(this.working);
    const others = this.scene.devices.map(deviceKey).filter((key) => key !== worked);
    const positions = this.scene.farSwitches.length === 0 ? [[]] : [[], this.scene.farSwitches];
    return positions.map((up) => ({
      off: copper.solve({ on: new Set(others), up: new Set(up) }),
      on: copper.solve({ on: new Set([...others, worked]), up: new Set(up) }),
    }));
  }

  /** What a slip shows. */
  shows(slip: Slip): Shows {
    const copper = this.copper(slip);
    const looks = this.look(copper);
    const atOn = new Set(looks.flatMap(({ off }) => off.shorts));
    if (atOn.size > 0) {
      const circuits = [...atOn].flatMap((index) => this.scene.known.job.circuits[index]?.id ?? []);
      const dark = this.copper({ ...slip, breakersOff: [...(slip.breakersOff ?? []), ...circuits] });
      return { ...this.seen(dark, this.look(dark)), breaker: ['trips-at-on'] };
    }
    const atSwitching = looks.some(({ on }) => on.shorts.length > 0);
    if (!atSwitching) return this.seen(copper, looks);
    const held = looks.map(({ off }) => ({ off, on: off }));
    return { ...this.seen(copper, held), control: ['none'], load: ['off'], breaker: ['trips-at-switching'] };
  }

  private seen(copper: Copper, looks: Look[]): Shows {
    const { own } = this.scene;
    const running = looks.map(({ on, off }) => on.running.has(this.key) && off.running.has(this.key));
    const heard = this.working === own || (running.every(Boolean) && this.hears(copper, looks));
    const fell = looks.some(({ on }) => on.fell.has(this.key));
    const loads = this.ownLoads(copper).map((one) => looks.map((look) => this.lamp(one, look, copper)));
    return {
      indicator:
        own.device.indicator === 'none' ? null : [fell ? 'blink' : running.some(Boolean) ? 'on' : 'off'],
      control: loads.length === 0 ? null : [heard ? controlOf(loads) : 'none'],
      load: this.loadOf(heard ? loads : loads.map(unworked), fell),
      neighbour: this.neighbourOf(copper, looks),
      breaker: ['holds'],
      far: this.farOf(copper, looks, running),
      feel: ['none'],
      restarts: [fell ? 'yes' : 'no'],
    };
  }

  private ownLoads(copper: Copper): Hanging[] {
    const ids = new Set(this.working.channels.flatMap(({ loadIds }) => loadIds));
    return copper.hanging.filter(({ loadId }) => loadId !== null && ids.has(loadId));
  }

  private share(one: Hanging, { across }: Solved, copper: Copper): number {
    if (copper.isOut(one)) return 0;
    return across(one.hot, one.back) / (this.lit.get(one.id) || 1);
  }

  private lamp(one: Hanging, { off, on }: Look, copper: Copper): { off: Level; on: Level } {
    return { off: levelOf(this.share(one, off, copper)), on: levelOf(this.share(one, on, copper)) };
  }

  private loadOf(loads: { off: Level; on: Level }[][], fell: boolean): Shows['load'] {
    const each = loads.map((looks) => [...new Set(looks.map(lampShows))]);
    const [first] = each;
    if (!first || each.some((values) => values.join() !== first.join())) return null;
    return fell ? [...new Set<SymptomOf<'load'>>([...first, 'flicker'])] : first;
  }

  private neighbourOf(copper: Copper, looks: Look[]): Shows['neighbour'] {
    const own = new Set(this.ownLoads(copper).map(({ id }) => id));
    const others = copper.hanging.filter(({ id }) => !own.has(id) && (this.lit.get(id) ?? 0) > LIT / 2);
    if (others.length === 0) return null;
    const levels = looks.flatMap(({ off, on }) =>
      others.flatMap((one) => [levelOf(this.share(one, off, copper)), levelOf(this.share(one, on, copper))]),
    );
    const worst = (['dark', 'bright', 'dim'] as const).find((level) => levels.includes(level));
    return [worst === 'dark' ? 'dead' : (worst ?? 'ok')];
  }

  private farOf(copper: Copper, looks: Look[], running: boolean[]): Shows['far'] {
    const { partners, farSwitches, own } = this.scene;
    if ((partners.length === 0 && farSwitches.length === 0) || this.isFarIdle) return null;
    if (farSwitches.length > 0) {
      if (running.some(Boolean) && !running.every(Boolean)) return ['one-way'];
      if (!running.every(Boolean)) return ['dead'];
      return [own.signals.length === 0 || this.notices(looks) ? 'works' : 'dead'];
    }
    return [this.hears(copper, looks) && running.every(Boolean) ? 'works' : 'dead'];
  }

  /** Whether every partner runs, and speaks to this one over its wire where it has one. */
  private hears(copper: Copper, [first]: readonly Look[]): boolean {
    const { partners, own } = this.scene;
    const isOne = (a: string, b: string) => copper.graph.joined.find(a) === copper.graph.joined.find(b);
    return partners.every((partner) => {
      const runs = first?.off.running.has(deviceKey(partner)) === true;
      const speaks =
        own.signals.length === 0 ||
        partner.signals.length === 0 ||
        own.signals.some((node) => partner.signals.some((other) => isOne(node, other)));
      return runs && speaks;
    });
  }

  /** Whether the far switch makes a difference at the device's signal. */
  private notices(looks: Look[]): boolean {
    const [down, up] = looks;
    if (!down || !up) return false;
    return this.scene.own.signals.some((node) => {
      const [one, other] = [down.off.volts(node), up.off.volts(node)];
      return Math.abs((one ?? 0) - (other ?? 0)) > 0.3 || (one === null) !== (other === null);
    });
  }
}

function lampShows({ off, on }: { off: Level; on: Level }): SymptomOf<'load'> {
  const isLit = (level: Level) => level === 'lit' || level === 'bright';
  if (isLit(off)) return 'on';
  if (off === 'dim') return isLit(on) ? 'glow' : 'dim';
  if (isLit(on)) return 'follows';
  return on === 'dim' ? 'dim' : 'off';
}

/** What is not worked stays as it is while the device is off. */
const unworked = (looks: { off: Level; on: Level }[]) => looks.map(({ off }) => ({ off, on: off }));

function controlOf(loads: { off: Level; on: Level }[][]): SymptomOf<'control'> {
  const works = loads.flatMap((looks) => looks.map(({ off, on }) => off !== on));
  if (works.every(Boolean)) return 'ok';
  return works.some(Boolean) ? 'partial' : 'none';
}
