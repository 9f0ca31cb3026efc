import type { ChannelState, JoinRequest } from '@inventario/core';
import { HiddenTruth } from './hidden.js';
import { Seeded } from './random.js';
import type { Scenario } from './scenario.js';

/** What a hand can do at a device. */
export const HANDS = ['press', 'press-alternate', 'cut-out', 'cut-in', 'reset'] as const;
export type Hand = (typeof HANDS)[number];

interface MadeUpChannel {
  id: number;
  watts: number;
  dims: boolean;
  on: boolean;
  level: number;
  settings: Map<string, string | number>;
  /** By what name an app has it, and in which room. */
  named: Map<string, { name: string; room: string }>;
}

/** A device behind its plate: what hides in it, whether it has joined, what its channels do. */
export class MadeUpDevice {
  readonly truth: HiddenTruth;
  readonly channels: MadeUpChannel[];
  joined = false;
  version = '1.0';
  /** Pulled, it parts the device from the supply. */
  cutOut = false;
  stuckUpdates: number;

  constructor(
    readonly request: JoinRequest,
    private readonly scenario: Scenario,
  ) {
    const { place } = request;
    this.truth = new HiddenTruth(
      scenario.faults[place] ?? [],
      new Set(scenario.beyondHelp[place] ?? []),
      new Seeded(scenario.seed + [...place].reduce((sum, sign) => sum * 31 + sign.charCodeAt(0), 7)),
    );
    this.stuckUpdates = scenario.stuckUpdates[place] ?? 0;
    this.channels = request.channels.map((channel) => ({
      ...channel,
      on: false,
      level: 100,
      named: new Map(),
      settings: new Map(),
    }));
  }

  get place(): string {
    return this.request.place;
  }

  /** What its light shows. */
  get light(): 'dark' | 'pairing' | 'alternate' | 'joined' | 'idle' {
    if (this.cutOut || !this.request.powered) return 'dark';
    if (this.joined) return 'joined';
    const causes = this.truth.causes();
    if (causes.includes('not-in-mode')) return 'idle';
    return this.alternate ? 'alternate' : 'pairing';
  }

  /** The button pressed, pressed for the alternate mode, the cut-out pulled or pushed, set back to new. */
  hand(does: Hand): void {
    if (does === 'cut-out' || does === 'cut-in') this.cutOut = does === 'cut-out';
    if (does === 'press' || does === 'press-alternate') {
      this.truth.set('not-in-mode', false);
      this.alternate = does === 'press-alternate';
      if (this.alternate) this.truth.set('needs-alternate', false);
    }
    if (does === 'reset') {
      this.alternate = false;
      this.joined = false;
      this.truth.set('registered-elsewhere', false);
    }
  }

  private alternate = false;

  channel(id: number): MadeUpChannel | undefined {
    return this.channels.find((channel) => channel.id === id);
  }

  /** What the channel tells of itself, with the watts its meter reads. */
  state(channel: MadeUpChannel, at: string): ChannelState {
    const share = this.scenario.draws[`${this.place}/${channel.id}`] ?? 1;
    const lit = channel.on ? (channel.dims ? channel.level / 100 : 1) : 0;
    return {
      place: this.place,
      channel: channel.id,
      on: channel.on,
      level: channel.dims ? channel.level : null,
      watts: Math.round(channel.watts * share * lit * 10) / 10,
      at,
    };
  }
}
