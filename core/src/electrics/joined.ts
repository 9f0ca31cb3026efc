/** Which nodes hang together: everything merged is one, whatever order it was merged in. */
export class Joined {
  private readonly parent = new Map<string, string>();

  /** The node that stands for all that hang together with this one. */
  find(node: string): string {
    let root = node;
    for (let next = this.parent.get(root); next !== undefined; next = this.parent.get(root)) root = next;
    return root;
  }

  merge(a: string, b: string): void {
    const [left, right] = [this.find(a), this.find(b)];
    if (left !== right) this.parent.set(left, right);
  }
}
