import { ChannelState, type CommandRequest } from '@inventario/core';
import { connectAsync, type MqttClient } from 'mqtt';
import { RequestError } from '../errors/catalogue.js';

/** What one channel told last. */
type Listener = (event: LiveEvent) => void;

export type LiveEvent = { kind: 'state'; state: ChannelState } | { kind: 'broker'; connected: boolean };

/** Between two looks for a broker that is away, ms. */
const LOOK_AGAIN = 1000;
/** A channel that was told to switch answers by then, ms. */
const ANSWER_TIME = 4000;
/** `home/BOX/POSITION/CHANNEL/state` */
const STATE = /^home\/([^/]+\/\d+)\/(\d+)\/state$/;

/**
 * The state of joined channels as the devices tell it over MQTT. A broker that dies is looked for until it is
 * back, wherever it then is; what was told before stays, and is told to be old.
 */
export class LiveStates {
  private readonly states = new Map<string, ChannelState>();
  private readonly listeners = new Set<Listener>();
  private client: MqttClient | null = null;
  private closed = false;
  private waiting: NodeJS.Timeout | undefined;

  /** @param whereIs asks the site for its broker; null where it has none */
  constructor(
    private readonly whereIs: () => Promise<string | null>,
    private readonly lookAgain = LOOK_AGAIN,
  ) {}

  get connected(): boolean {
    return this.client?.connected === true;
  }

  all(): ChannelState[] {
    return [...this.states.values()];
  }

  /** @returns what ends it */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Looks for the broker now, and again whenever it is away. */
  async start(): Promise<void> {
    if (this.closed) return;
    try {
      const url = await this.whereIs();
      if (url === null) throw new Error('The site has no broker yet');
      await this.follow(await connectAsync(url, { reconnectPeriod: 0, connectTimeout: 3000 }));
    } catch {
      this.startLater();
    }
  }

  /** Tells a channel to switch, and waits for its word that it did. @returns how long that took, ms */
  async command({ place, channel, on, level }: CommandRequest): Promise<number> {
    const { client } = this;
    if (!client?.connected) throw new RequestError('site-unreachable');
    if (!this.states.has(`${place}/${channel}`)) throw new RequestError('not-joined');
    const since = Date.now();
    const answered = this.answerOf(place, channel, on);
    await client.publishAsync(`home/${place}/${channel}/set`, JSON.stringify({ on, level }), { qos: 1 });
    await answered;
    return Date.now() - since;
  }

  async close(): Promise<void> {
    this.closed = true;
    clearTimeout(this.waiting);
    await this.client?.endAsync(true);
  }

  private async follow(client: MqttClient): Promise<void> {
    this.client = client;
    client.on('message', (topic, payload) => this.hear(topic, payload));
    client.on('error', () => undefined);
    client.once('close', () => {
      this.client = null;
      this.tell({ kind: 'broker', connected: false });
      this.startLater();
    });
    await client.subscribeAsync('home/+/+/+/state', { qos: 1 });
    this.tell({ kind: 'broker', connected: true });
  }

  private startLater(): void {
    if (this.closed) return;
    this.waiting = setTimeout(() => void this.start(), this.lookAgain);
    this.waiting.unref();
  }

  private hear(topic: string, payload: Buffer): void {
    const [, place, channel] = STATE.exec(topic) ?? [];
    const state = ChannelState.safeParse(parsed(payload));
    // Whoever speaks for another channel than its topic says is not believed.
    if (!state.success || state.data.place !== place || String(state.data.channel) !== channel) return;
    this.states.set(`${place}/${channel}`, state.data);
    this.tell({ kind: 'state', state: state.data });
  }

  private answerOf(place: string, channel: number, on: boolean): Promise<void> {
    return new Promise((answered, failed) => {
      const done = (end: () => void) => {
        clearTimeout(late);
        unlisten();
        end();
      };
      const late = setTimeout(() => done(() => failed(new RequestError('no-answer'))), ANSWER_TIME);
      const unlisten = this.listen((event) => {
        if (event.kind !== 'state') return;
        const { state } = event;
        if (state.place === place && state.channel === channel && state.on === on) done(answered);
      });
    });
  }

  private tell(event: LiveEvent): void {
    for (const listener of this.listeners) listener(event);
  }
}

function parsed(payload: Buffer): unknown {
  try {
    return JSON.parse(payload.toString());
  } catch {
    return null;
  }
}
