import { TextDecoder, TextEncoder } from 'node:util';

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
// Nothing is painted here: whatever a chart asks of its canvas is answered and forgotten.
HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement) {
  const known: Record<PropertyKey, unknown> = { canvas: this };
  const nothing = () => ({ width: 0 });
  return new Proxy(known, { get: (context, name) => context[name] ?? nothing, set: () => true });
} as unknown as typeof HTMLCanvasElement.prototype.getContext;
