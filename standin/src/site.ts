import {
  type Cause,
  type ChannelState,
  type CommandRequest,
  type FindRequest,
  type FindResult,
  type JoiningRemedy,
  type JoinRequest,
  type JoinState,
  type Look,
  MACHINE_LOOKS,
  type SayResult,
  type SiteState,
  type UpdateResult,
} from '@inventario/core';
import { wordsFor } from './assistants.js';
import { type Hand, MadeUpDevice } from './device.js';
import { reach } from './reach.js';
import { Scenario } from './scenario.js';

/** What happens at one try, and how long each step takes (ms). A failing step ends the try after its time. */
interface Step {
  step: JoinState['step'];
  takes: number;
}

interface Join {
  id: string;
  device: MadeUpDevice;
  startedAt: number;
  steps: Step[];
  outcome: ReturnType<MadeUpDevice['truth']['attempt']>;
  settled: boolean;
  /** Its end was told to whoever listens. */
  told: boolean;
}

/** Below this the radio does not get through. dBm. */
const WEAKEST = -80;
/** Down to this a join takes no longer than it has to. */
const WEAK = -70;

/**
 * A made-up house: one router with its clients, the hubs, the devices behind the plates, the assistants. It
 * keeps its state in memory and plays in real time. Time comes in as a parameter so that a test can move it.
 */
export class Site {
  private readonly joins = new Map<string, Join>();
  private readonly devices = new Map<string, MadeUpDevice>();
  private readonly listeners = new Set<(event: SiteEvent) => void>();
  /** What was typed as the password at a place, where somebody did. */
  private readonly typed = new Map<string, string>();
  /** Places to which the signal was brought: a repeater stands between. */
  private readonly brought = new Set<string>();
  private serial = 0;
  scenario: Scenario;

  constructor(
    scenario: Partial<Scenario>,
    private readonly now: () => number,
  ) {
    this.scenario = Scenario.parse(scenario);
  }

  /** Everything begins anew under another scenario. */
  restart(scenario: Scenario): void {
    this.scenario = scenario;
    this.devices.clear();
    this.brought.clear();
    this.typed.clear();
    this.joins.clear();
  }

  /** @returns what ends it */
  listen(listener: (event: SiteEvent) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  state(): SiteState {
    this.settle();
    const { router } = this.scenario;
    return {
      name: router.name,
      clients: router.otherClients + this.overRouter(),
      clientLimit: router.clientLimit,
      bands: router.bands,
      hubs: Object.entries(this.scenario.hubs).map(([hubId, hub]) => ({
        hubId,
        online: hub.online,
        joining: hub.joining,
        devices: hub.devices + this.onHub(hubId),
        deviceLimit: hub.deviceLimit,
      })),
    };
  }

  start(request: JoinRequest): JoinState {
    this.settle();
    this.serial += 1;
    const device = this.deviceFor(request);
    const outcome = device.truth.attempt(this.inTheWay(request));
    const join: Join = {
      id: `join-${this.serial}`,
      device,
      startedAt: this.now(),
      steps: stepsTo(outcome.seen, this.signalAt(request) < WEAK ? 2 : 1),
      outcome,
      settled: false,
      told: false,
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

  /** What the installer did at a place: a made-up hand does it. */
  deed(place: string, deed: string): 'done' | 'cannot' {
    const device = this.devices.get(place);
    const hub = this.scenario.hubs[device?.request.hubId ?? ''];
    if (device && deed === 'power-on') device.cutOut = false;
    if (deed === 'type-password') this.typed.delete(place);
    if (hub && deed === 'open-hub') hub.joining = true;
    if (hub && deed === 'set-up-hub') hub.online = true;
    if (hub && deed === 'free-hub') hub.devices = Math.max(0, hub.devices - 5);
    if (deed === 'free-router')
      this.scenario.router.otherClients -= Math.min(4, this.scenario.router.otherClients);
    const came = device?.truth.deed(deed as JoiningRemedy) ?? 'done';
    if (came === 'done' && deed === 'bring-closer') this.brought.add(place);
    return came;
  }

  /** What the router or hub says to a look; null for what only eyes can see. */
  look(place: string, look: string): boolean | null {
    const device = this.devices.get(place);
    if (!device || !MACHINE_LOOKS.has(look as Look)) return null;
    return device.truth.look(look as Look, this.inTheWay(device.request));
  }

  /** A hand at the device: its button, its cut-out, set back to new. */
  hand(place: string, does: Hand): { light: string } | undefined {
    const device = this.devices.get(place);
    if (!device) return undefined;
    device.hand(does);
    return { light: device.light };
  }

  /** The password of the network as somebody types it for a device: upper and lower case count. */
  type(place: string, password: string): { right: boolean } {
    this.typed.set(place, password);
    return { right: password === this.scenario.router.password };
  }

  /** A setting of a channel, as the app sends it. */
  set(place: string, channel: number, name: string, value: string | number): { name: string } | undefined {
    const settings = this.joinedDevice(place)?.channel(channel)?.settings;
    settings?.set(name, value);
    return settings && { name };
  }

  update(place: string): UpdateResult | undefined {
    const device = this.joinedDevice(place);
    if (!device) return undefined;
    if (device.stuckUpdates > 0) {
      device.stuckUpdates -= 1;
      return { outcome: 'stuck', version: device.version };
    }
    device.version = '1.1';
    return { outcome: 'done', version: device.version };
  }

  find({ place, channel: id, platform, name, room }: FindRequest): FindResult {
    const device = this.joinedDevice(place);
    const channel = device?.channel(id);
    if (!device || !channel) return { routes: [], room: null };
    channel.named.set(platform, { name, room });
    const route = device.request.hubId === null ? 'maker' : 'hub';
    const twice = this.scenario.foundTwice.includes(`${place}/${id}`);
    const routes: FindResult['routes'] = twice ? ['direct', route] : [route];
    this.tell({ kind: 'found', platform, place, channel: id, routes });
    return { routes, room };
  }

  /** An assistant hears words: whatever has the name does as it is told. */
  say(platform: string, words: string): SayResult {
    const answers: SayResult['answers'] = [];
    for (const device of this.devices.values())
      for (const channel of device.channels) {
        const name = channel.named.get(platform)?.name;
        const told = name === undefined ? null : wordsFor(words, name);
        if (told === null || !device.joined) continue;
        this.command({ place: device.place, channel: channel.id, on: told, from: 'app' });
        answers.push({ place: device.place, channel: channel.id });
      }
    this.tell({ kind: 'heard', platform, words, answers });
    return { answers, ms: 300 + ((words.length * 37) % 900) };
  }

  command({ place, channel: id, on, level, from }: CommandRequest): ChannelState | undefined {
    const device = this.devices.get(place);
    const channel = device?.channel(id);
    if (!device || !channel || (from === 'app' && !device.joined)) return undefined;
    channel.on = on;
    if (level !== undefined && channel.dims) channel.level = level;
    const state = device.state(channel, this.instant());
    if (device.joined) this.tell({ kind: 'state', state });
    return state;
  }

  /** What every joined channel tells of itself. */
  states(): ChannelState[] {
    this.settle();
    return [...this.devices.values()]
      .filter(({ joined }) => joined)
      .flatMap((device) => device.channels.map((channel) => device.state(channel, this.instant())));
  }

  /** For the site's own page: what hides behind the plates. */
  behindThePlates() {
    this.settle();
    return [...this.devices.values()].map((device) => ({
      place: device.place,
      deviceId: device.request.deviceId,
      joined: device.joined,
      light: device.light,
      cutOut: device.cutOut,
      version: device.version,
      causes: device.truth.causes(),
      channels: device.channels.map(({ id, on, level, settings }) => ({
        id,
        on,
        level,
        settings: Object.fromEntries(settings),
      })),
    }));
  }

  /** By where it stands, as far as the scenario says; else as it was read there. dBm. */
  private signalAt({ place, rssi }: JoinRequest): number {
    const { router, places } = this.scenario;
    const at = places[place];
    const repeated = this.brought.has(place);
    if (router.spot && at) return reach(router.spot, at, repeated);
    return repeated ? WEAK : (rssi ?? WEAK);
  }

  private deviceFor(request: JoinRequest): MadeUpDevice {
    const known = this.devices.get(request.place);
    // Another model at the same place is another device.
    if (known && known.request.deviceId === request.deviceId) {
      Object.assign(known.request, request);
      return known;
    }
    // Every radio has its hub in this house; what the scenario does not say of it is as usual.
    if (request.hubId !== null) this.scenario.hubs[request.hubId] ??= { ...FRESH_HUB };
    const device = new MadeUpDevice(structuredClone(request), this.scenario);
    this.devices.set(request.place, device);
    return device;
  }

  private joinedDevice(place: string): MadeUpDevice | undefined {
    this.settle();
    const device = this.devices.get(place);
    return device?.joined ? device : undefined;
  }

  /** What stands in the way besides what hides in the device: of the circuit, the phone, router and hub. */
  private inTheWay(request: JoinRequest): Cause[] {
    const { router, hubs } = this.scenario;
    const device = this.devices.get(request.place);
    const hub = request.hubId === null ? undefined : (hubs[request.hubId] ?? FRESH_HUB);
    const isNew = !device?.joined;
    const checks: [Cause, boolean][] = [
      ['no-power', !request.powered || device?.cutOut === true],
      ['hub-missing', hub?.online === false],
      ['hub-closed', hub?.joining === false],
      [
        'wrong-band',
        !hub &&
          request.radio === 'wifi' &&
          request.deviceBands.length > 0 &&
          !request.deviceBands.includes(request.phoneBand),
      ],
      [
        'wrong-password',
        !hub &&
          this.typed.get(request.place) !== undefined &&
          this.typed.get(request.place) !== router.password,
      ],
      ['weak-signal', this.signalAt(request) < WEAKEST],
      [
        'hub-full',
        hub !== undefined && isNew && hub.devices + this.onHub(request.hubId ?? '') >= hub.deviceLimit,
      ],
      [
        'router-full',
        !hub &&
          request.radio === 'wifi' &&
          isNew &&
          router.otherClients + this.overRouter() >= router.clientLimit,
      ],
    ];
    return checks.filter(([, stands]) => stands).map(([cause]) => cause);
  }

  private progressOf(join: Join): JoinState {
    const total = join.steps.reduce((sum, step) => sum + step.takes, 0);
    const elapsed = (this.now() - join.startedAt) * this.scenario.speed;
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
          listed: null,
        };
    }
    const { seen, listed } = join.outcome;
    return seen === 'joined'
      ? { ...common, state: 'joined', progress: 1, step: 'done', reason: null, listed }
      : {
          ...common,
          state: 'failed',
          progress: 1,
          step: join.steps.at(-1)?.step ?? 'searching',
          reason: seen,
          listed,
        };
  }

  /** Tells how far every try is that has not ended, and once more when it has. */
  tellTries(): void {
    for (const join of this.joins.values()) {
      if (join.told) continue;
      const state = this.progressOf(join);
      join.told = state.state !== 'running';
      this.tell({ kind: 'join', join: { ...state, place: join.device.place } });
    }
    this.settle();
  }

  /** A device that has joined becomes a client, and tells of its channels. */
  private settle(): void {
    for (const join of this.joins.values()) {
      if (join.settled || this.progressOf(join).state === 'running') continue;
      join.settled = true;
      if (join.outcome.seen !== 'joined') continue;
      join.device.joined = true;
      for (const channel of join.device.channels)
        this.tell({ kind: 'state', state: join.device.state(channel, this.instant()) });
    }
  }

  private overRouter(): number {
    return [...this.devices.values()].filter(
      ({ joined, request }) => joined && request.radio === 'wifi' && request.hubId === null,
    ).length;
  }

  private onHub(hubId: string): number {
    return [...this.devices.values()].filter(({ joined, request }) => joined && request.hubId === hubId)
      .length;
  }

  private tell(event: SiteEvent): void {
    for (const listener of this.listeners) listener(event);
  }

  private instant(): string {
    return new Date(this.now()).toISOString();
  }
}

/** What the site tells without being asked: of channels, of tries, of what assistants found and heard. */
export type SiteEvent =
  | { kind: 'state'; state: ChannelState }
  | { kind: 'join'; join: JoinState & { place: string } }
  | { kind: 'found'; platform: string; place: string; channel: number; routes: FindResult['routes'] }
  | { kind: 'heard'; platform: string; words: string; answers: SayResult['answers'] };

const FRESH_HUB = { online: true, joining: true, deviceLimit: 50, devices: 0 };

/** How far a try goes before the app says what it came to. */
function stepsTo(seen: JoinState['reason'], slow: number): Step[] {
  const steps: Step[] = [
    { step: 'searching', takes: 900 * slow },
    { step: 'found', takes: 700 },
    { step: 'keys', takes: 900 * slow },
    { step: 'address', takes: 600 },
  ];
  const last = { 'not-found': 0, owned: 1, refused: 2, full: 3, 'no-network': 3 }[seen ?? ''] ?? 3;
  return steps.slice(0, last + 1);
}
