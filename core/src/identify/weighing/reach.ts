import type { Network } from '../../electrics/network.js';

/**
 * Two nodes that are joined in some of the states that may be: by a switch here (its position), or by one
 * elsewhere (null).
 */
export interface MaybeJoined {
  a: number;
  b: number;
  position: number | null;
}

/**
 * What a reading can rest on, before any hidden thing is settled: a network with only its sure ties, and
 * everything that may be joined besides. It may name too much, never too little: what it leaves out cannot
 * change what an instrument shows.
 */
export class Reach {
  private readonly joints = new Map<number, { to: number; position: number | null }[]>();
  private readonly loads = new Map<number, { to: number; loadId: string | null }[]>();

  constructor(
    private readonly network: Network,
    maybe: readonly MaybeJoined[],
  ) {
    const add = <Edge>(edges: Map<number, Edge[]>, node: number, edge: Edge) => {
      const known = edges.get(node);
      if (known) known.push(edge);
      else edges.set(node, [edge]);
    };
    for (const { a, b, position } of maybe) {
      const [from, to] = [network.find(a), network.find(b)];
      if (from === to) continue;
      add(this.joints, from, { to, position });
      add(this.joints, to, { to: from, position });
    }
    for (const { a, b, loadId } of network.elements) {
      const [from, to] = [network.find(a), network.find(b)];
      add(this.loads, from, { to, loadId });
      if (from !== to) add(this.loads, to, { to: from, loadId });
    }
  }

  /**
   * Tied to the reference or to a source, whatever its breaker: what hangs on it does not change what it is.
   */
  fixed(node: number): boolean {
    return this.network.isReference(node) || this.network.isLineSide(node);
  }

  isReference(node: number): boolean {
    return this.network.isReference(node);
  }

  /** Both ends of each load of this name. */
  endsOf(loadId: string): number[] {
    const ends: number[] = [];
    for (const element of this.network.elements)
      if (element.loadId === loadId) ends.push(element.a, element.b);
    return ends;
  }

  /**
   * Loads whose presence can matter at the nodes.
   * @param evenFixed whether to look beyond a node that is tied: from meter clip to meter clip it can matter
   */
  loadsFrom(nodes: readonly number[], evenFixed: boolean): Set<string> {
    const found = new Set<string>();
    const seen = new Set(
      nodes.map((node) => this.network.find(node)).filter((node) => evenFixed || !this.fixed(node)),
    );
    const queue = [...seen];
    const onward = (to: number) => {
      if (seen.has(to) || this.fixed(to)) return;
      seen.add(to);
      queue.push(to);
    };
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      for (const { to, loadId } of this.loads.get(at) ?? []) {
        if (loadId !== null) found.add(loadId);
        onward(to);
      }
      for (const { to } of this.joints.get(at) ?? []) onward(to);
    }
    return found;
  }

  /**
   * Positions whose switch can matter at the nodes. From a tied node outward only what may join it to another
   * tied one does.
   */
  switchesFrom(nodes: readonly number[], evenFixed: boolean): Set<number> {
    const found = new Set<number>();
    const seen = new Set<number>();
    const queue: { node: number; open: boolean }[] = [];
    const visit = (node: number, even = false) => {
      if (seen.has(node)) return;
      seen.add(node);
      queue.push({ node, open: even || !this.fixed(node) });
    };
    for (const node of nodes) visit(this.network.find(node), evenFixed);
    for (let next = queue.pop(); next; next = queue.pop()) {
      const { node, open } = next;
      if (open) for (const { to } of this.loads.get(node) ?? []) visit(to);
      for (const { to, position } of this.joints.get(node) ?? []) {
        if (open) {
          if (position !== null) found.add(position);
          visit(to);
          continue;
        }
        const beyond = this.towardsTied(node, to);
        if (!beyond) continue;
        if (position !== null) found.add(position);
        for (const other of beyond.positions) found.add(other);
        for (const tied of beyond.tied) visit(tied);
      }
    }
    return found;
  }

  /** What lies between a tied node and others, by joints alone; null when there is no other that way. */
  private towardsTied(from: number, first: number): { positions: number[]; tied: number[] } | null {
    const positions: number[] = [];
    const tied: number[] = [];
    const seen = new Set([from, first]);
    const queue = [first];
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      if (this.fixed(at)) {
        tied.push(at);
        continue;
      }
      for (const { to, position } of this.joints.get(at) ?? []) {
        if (position !== null) positions.push(position);
        if (seen.has(to)) continue;
        seen.add(to);
        queue.push(to);
      }
    }
    return tied.length > 0 ? { positions, tied } : null;
  }
}
