import type { Change } from '@inventario/core';

/** The part of the browser's EventSource that is used. */
export interface EventStream {
  readonly readyState: number;
  addEventListener(name: string, hear: (event: MessageEvent<string>) => void): void;
  close(): void;
}
export type OpenStream = (address: string) => EventStream;

interface Hearing {
  /** The line is open. */
  open(): void;
  change(change: Change): void;
  /**
   * The job is another generation of itself, or stands at an earlier change: what is here is not its past.
   */
  generation(): void;
  gone(): void;
  /** The line is down. `given up`: the browser will not try again by itself. */
  down(givenUp: boolean): void;
}

const CLOSED = 2;

/** What others do to a job, as it happens. */
export class LiveChanges {
  private stream: EventStream | undefined;

  constructor(
    private readonly openStream: OpenStream,
    private readonly hearing: Hearing,
  ) {}

  follow(jobId: string, since: number, generation: string | null): void {
    this.close();
    const known = generation ? `&generation=${generation}` : '';
    const stream = this.openStream(`/api/jobs/${jobId}/changes/stream?since=${since}${known}`);
    this.stream = stream;
    const on = (name: string, hear: (event: MessageEvent<string>) => void) =>
      stream.addEventListener(name, (event) => {
        if (this.stream === stream) hear(event);
      });
    on('open', () => this.hearing.open());
    on('change', (event) => this.hearing.change(JSON.parse(event.data) as Change));
    on('generation', () => this.hearing.generation());
    on('gone', () => this.hearing.gone());
    on('error', () => this.hearing.down(stream.readyState === CLOSED));
  }

  close(): void {
    this.stream?.close();
    this.stream = undefined;
  }
}
