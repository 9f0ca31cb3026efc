/** Who wants to hear that something changed: what React subscribes to, and the way to tell it. */
export class Listeners {
  private readonly all = new Set<() => void>();

  /** @returns the way to hear no more */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.all.add(listener);
    return () => this.all.delete(listener);
  };

  readonly tell = (): void => {
    for (const listener of this.all) listener();
  };
}
