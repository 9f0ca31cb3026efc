import { TextDecoder, TextEncoder } from 'node:util';
import { deserialize, serialize } from 'node:v8';

// What jsdom lacks and the interface asks for.
class NoResizeObserver {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
globalThis.ResizeObserver ??= NoResizeObserver;
window.matchMedia ??= (media: string) =>
  ({ media, matches: false, addEventListener() {}, removeEventListener() {} }) as unknown as MediaQueryList;
Element.prototype.scrollIntoView ??= () => {};
Object.assign(globalThis, { TextDecoder, TextEncoder });
globalThis.structuredClone ??= <Value>(value: Value): Value => deserialize(serialize(value)) as Value;
// Nothing is painted here: whatever a chart asks of its canvas is answered and forgotten.
HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement) {
  const known: Record<PropertyKey, unknown> = { canvas: this };
  const nothing = () => ({ width: 0 });
  return new Proxy(known, { get: (context, name) => context[name] ?? nothing, set: () => true });
} as unknown as typeof HTMLCanvasElement.prototype.getContext;

/** Tabs of one browser that are pages of one test. */
class Channel {
  private static readonly all = new Set<Channel>();
  private readonly listeners: ((event: { data: unknown }) => void)[] = [];
  constructor(readonly name: string) {
    Channel.all.add(this);
  }
  addEventListener(_: string, listener: (event: { data: unknown }) => void): void {
    this.listeners.push(listener);
  }
  postMessage(data: unknown): void {
    const copy = structuredClone(data);
    for (const other of Channel.all)
      if (other !== this && other.name === this.name)
        setTimeout(() => Channel.all.has(other) && other.hear(copy), 0);
  }
  close(): void {
    Channel.all.delete(this);
  }
  private hear(data: unknown): void {
    for (const listener of this.listeners) listener({ data });
  }
}
globalThis.BroadcastChannel ??= Channel as unknown as typeof BroadcastChannel;
