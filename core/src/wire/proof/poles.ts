import type { Network } from '../../electrics/network.js';
import type { JobLookup } from '../../job/lookup.js';
import type { Graph } from './graph.js';

/** Nodes of a graph by number, the same for all that hang together whatever stands open. */
export class NodeNumbers {
  private readonly number = new Map<string, number>();

  constructor(private readonly joined: Graph['joined']) {}

  at(node: string): number {
    const root = this.joined.find(node);
    let number = this.number.get(root);
    if (number === undefined) {
      number = this.number.size;
      this.number.set(root, number);
    }
    return number;
  }

  get size(): number {
    return this.number.size;
  }
}

/** Lines to their legs, as far as their breakers are on; neutrals and earth to the reference. */
export function tiePoles(
  network: Network,
  poles: Graph['poles'],
  { at, isOn }: { at: (node: string) => number; isOn: (circuitId: string) => boolean },
  { circuits, job }: JobLookup,
): void {
  for (const pole of poles) {
    const node = at(pole);
    if (!pole.startsWith('L:')) {
      network.tieReference(node);
      continue;
    }
    const [circuitId = '', second] = pole.slice(2).split('#');
    const circuit = circuits.get(circuitId);
    const pair = (circuit?.poles ?? 1) > 1;
    const leg = pair ? `${circuit?.leg ?? ''}${second ?? '1'}` : (circuit?.leg ?? null);
    const index = job.circuits.findIndex(({ id }) => id === circuitId);
    network.tieSource(node, index, leg, isOn(circuitId));
  }
}
