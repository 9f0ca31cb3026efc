import { Network } from '../../electrics/network.js';
import type { JobLookup } from '../../job/lookup.js';
import type { Graph } from './graph.js';
import { NodeNumbers, tiePoles } from './poles.js';

/** A contact between two nodes: closed while its key stands in one of the positions named. */
export interface Contact {
  key: string;
  from: string;
  to: string;
  when: 'on' | 'up' | 'down' | 'any';
}

/** One state of breakers and switches. */
export interface State {
  breakersOn: ReadonlySet<string>;
  /** What stands on, or up; all others stand off, or down. */
  closed: ReadonlySet<string>;
}

/** Contacts are few in a box; beyond this many not all combinations are run, but each alone and in pairs. */
const ALL_UP_TO = 8;

/** Every state that bears on some boxes: breakers all, each off, all off; contacts in every combination. */
export function statesOf(circuits: readonly string[], keys: readonly string[]): State[] {
  const breakers = [
    new Set(circuits),
    ...(circuits.length > 1 ? circuits.map((off) => new Set(circuits.filter((id) => id !== off))) : []),
    new Set<string>(),
  ];
  const combinations = keys.length <= ALL_UP_TO ? allOf(keys) : someOf(keys);
  return breakers.flatMap((breakersOn) => combinations.map((closed) => ({ breakersOn, closed })));
}

function allOf(keys: readonly string[]): ReadonlySet<string>[] {
  return Array.from(
    { length: 2 ** keys.length },
    (_, bits) => new Set(keys.filter((_key, at) => (bits >> at) & 1)),
  );
}

function someOf(keys: readonly string[]): ReadonlySet<string>[] {
  const sets: ReadonlySet<string>[] = [new Set(), new Set(keys)];
  keys.forEach((key, at) => {
    sets.push(new Set([key]), new Set(keys.filter((other) => other !== key)));
    for (const other of keys.slice(at + 1)) sets.push(new Set([key, other]));
  });
  return sets;
}

const isClosed = ({ key, when }: Contact, { closed }: State) =>
  when === 'any' || (when === 'down' ? !closed.has(key) : closed.has(key));

/** The network of a graph, its nodes numbered once, run state by state. */
export class Runs {
  private readonly numbers: NodeNumbers;
  private readonly circuitIds: string[];

  constructor(
    private readonly graph: Graph,
    private readonly contacts: readonly Contact[],
    private readonly known: JobLookup,
  ) {
    this.circuitIds = known.job.circuits.map(({ id }) => id);
    this.numbers = new NodeNumbers(graph.joined);
  }

  /** The number of a node, the same for all that hang together whatever stands open. */
  at(node: string): number {
    return this.numbers.at(node);
  }

  run(state: State): StateRun {
    for (const { from, to } of this.contacts) {
      this.at(from);
      this.at(to);
    }
    for (const { hot, back } of this.graph.consumers) {
      this.at(hot);
      this.at(back);
    }
    for (const pole of this.graph.poles) this.at(pole);
    // Room for nodes that are asked about later.
    const network = new Network(this.numbers.size + SPARE);
    for (const contact of this.contacts)
      if (isClosed(contact, state)) network.merge(this.at(contact.from), this.at(contact.to));
    const isOn = (circuitId: string) => state.breakersOn.has(circuitId);
    tiePoles(network, this.graph.poles, { at: (node) => this.at(node), isOn }, this.known);
    for (const { hot, back, loadId } of this.graph.consumers)
      network.addElement({ a: this.at(hot), b: this.at(back), loadId, conducts: true, ohms: 100 });
    return new StateRun(network, (node) => this.at(node), this.circuitIds);
  }
}

/** Nodes that are nothing but a capped end: each is asked about once at most. */
const SPARE = 512;

export class StateRun {
  constructor(
    readonly network: Network,
    private readonly at: (node: string) => number,
    private readonly circuitIds: readonly string[],
  ) {}

  same(a: string, b: string): boolean {
    return this.network.same(this.at(a), this.at(b));
  }

  isLit(hot: string, back: string): boolean {
    return (
      this.network.lit({ a: this.at(hot), b: this.at(back), loadId: null, conducts: true, ohms: 100 }) ===
      'lit'
    );
  }

  /** Circuits that met a neutral, or another leg. */
  get shorts(): string[] {
    return [...new Set(this.network.shorts)].flatMap((index) => this.circuitIds[index] ?? []);
  }
}
