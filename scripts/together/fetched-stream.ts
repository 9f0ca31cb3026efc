// The browser's EventSource over fetch, as far as a session uses it: it reconnects by itself after the last
// event it saw.
import type { EventStream } from '../../web/src/data/session/live-changes.js';

const RECONNECT_MS = 20;

export class FetchedStream implements EventStream {
  readyState = 0;
  private readonly hearers = new Map<string, (event: MessageEvent<string>) => void>();
  private readonly ending = new AbortController();
  private lastId: string | undefined;

  /**
   * @param address asked for each connection: it may be another server's @param breaks whether a line breaks
   * after an event
   */
  constructor(
    private readonly address: () => string,
    private readonly breaks: () => boolean,
  ) {
    void this.run();
  }

  addEventListener(name: string, hear: (event: MessageEvent<string>) => void): void {
    this.hearers.set(name, hear);
  }

  close(): void {
    this.readyState = 2;
    this.ending.abort();
  }

  private async run(): Promise<void> {
    while (this.readyState !== 2) {
      try {
        const headers = this.lastId === undefined ? undefined : { 'last-event-id': this.lastId };
        const response = await fetch(this.address(), {
          signal: this.ending.signal,
          ...(headers ? { headers } : {}),
        });
        if (!response.ok || !response.body) {
          this.readyState = 2;
          this.hear('error', '');
          return;
        }
        this.readyState = 1;
        this.hear('open', '');
        await this.read(response.body);
      } catch {
        // The line broke; it is taken up again below.
      }
      if (this.ending.signal.aborted) return;
      this.readyState = 0;
      this.hear('error', '');
      await new Promise((done) => setTimeout(done, RECONNECT_MS));
    }
  }

  private async read(body: ReadableStream<Uint8Array>): Promise<void> {
    const reader = body
      .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>)
      .getReader();
    let text = '';
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return;
      text += value;
      const events = text.split('\n\n');
      text = events.pop() ?? '';
      for (const event of events) {
        const field = (name: string) => new RegExp(`^${name}: (.*)$`, 'm').exec(event)?.[1];
        const [name, data] = [field('event'), field('data')];
        this.lastId = field('id') ?? this.lastId;
        if (name && data !== undefined) this.hear(name, data);
        if (this.breaks()) {
          await reader.cancel();
          return;
        }
      }
    }
  }

  private hear(name: string, data: string): void {
    if (!this.ending.signal.aborted || name === 'error')
      this.hearers.get(name)?.({ data } as MessageEvent<string>);
  }
}
