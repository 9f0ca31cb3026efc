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
