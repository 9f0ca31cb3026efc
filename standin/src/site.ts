import type { JoinRequest, JoinState, SiteState } from '@inventario/core';

/** What happens at one try, and how long each step takes (ms). A failing step ends the try after its time. */
interface Step {
  step: JoinState['step'];
  takes: number;
  fails?: string;
}

interface Join {
  id: string;
  request: JoinRequest;
  startedAt: number;
  steps: Step[];
  counted: boolean;
}

/** Below this the radio does not get through; down to it a join takes longer. dBm. */
const WEAKEST = -80;
const WEAK = -70;

/**
 * A made-up site: one router with its clients and the devices behind the plates. It keeps its state in memory
 * and plays joins in real time. Time comes in as a parameter so that a test can move it.
 */
export class Site {
  private readonly joins = new Map<string, Join>();
  private readonly clients = new Set<string>();
  private serial = 0;

  constructor(
    private readonly options: { clientLimit: number; otherClients: number; hubs: boolean; speed: number },
    private readonly now: () => number,
  ) {}

  state(): SiteState {
    this.settle();
    return {
      clients: this.options.otherClients + this.clients.size,
      clientLimit: this.options.clientLimit,
      bands: ['2.4', '5'],
    };
  }

  start(request: JoinRequest): JoinState {
    this.settle();
    this.serial += 1;
    const join: Join = {
      id: `join-${this.serial}`,
      request,
      startedAt: this.now(),
      steps: this.stepsFor(request),
      counted: false,
    };
    this.joins.set(join.id, join);
    // A long-running site does not remember every try for ever.
    if (this.joins.size > 500) this.joins.delete(this.joins.keys().next().value as string);
    return this.progressOf(join);
  }

  join(id: string): JoinState | undefined {
    this.settle();
    const join = this.joins.get(id);
    return join && this.progressOf(join);
  }

  private stepsFor(request: JoinRequest): Step[] {
    const wifi = request.radio === 'wifi';
    const slow = request.rssi < WEAK ? 2 : 1;
    const steps: Step[] = [
      { step: 'searching', takes: 900 * slow, ...(request.powered ? {} : { fails: 'not-in-pairing-mode' }) },
      {
        step: 'found',
        takes: 700,
        ...(wifi && !request.deviceBands.includes(request.phoneBand) ? { fails: 'wrong-band' } : {}),
      },
      { step: 'keys', takes: 900 * slow, ...(request.rssi < WEAKEST ? { fails: 'weak-signal' } : {}) },
      { step: 'address', takes: 600, ...this.refusal(request, wifi) },
    ];
    const last = steps.findIndex((step) => step.fails !== undefined);
    return last < 0 ? steps : steps.slice(0, last + 1);
  }

  private refusal(request: JoinRequest, wifi: boolean): { fails?: string } {
    if (request.needsHub && !this.options.hubs) return { fails: 'no-hub' };
    const known = this.clients.has(`${request.deviceId}@${request.place}`);
    return wifi && !known && this.options.otherClients + this.clients.size >= this.options.clientLimit
      ? { fails: 'router-full' }
      : {};
  }

  private progressOf(join: Join): JoinState {
    const total = join.steps.reduce((sum, step) => sum + step.takes, 0);
    const elapsed = (this.now() - join.startedAt) * this.options.speed;
    const common = { id: join.id, seconds: Math.round(Math.min(elapsed, total) / 100) / 10 };
    let passed = 0;
    for (const step of join.steps) {
      passed += step.takes;
      if (elapsed < passed)
        return {
          ...common,
          state: 'running',
          progress: Math.min(1, elapsed / total),
          step: step.step,
          reason: null,
        };
    }
    const last = join.steps.at(-1);
    return last?.fails
      ? { ...common, state: 'failed', progress: 1, step: last.step, reason: last.fails }
      : { ...common, state: 'joined', progress: 1, step: 'done', reason: null };
  }

  /** A device that has joined becomes the router's client. */
  private settle(): void {
    for (const join of this.joins.values()) {
      if (join.counted || this.progressOf(join).state !== 'joined') continue;
      join.counted = true;
      if (join.request.radio === 'wifi') this.clients.add(`${join.request.deviceId}@${join.request.place}`);
    }
  }
}
