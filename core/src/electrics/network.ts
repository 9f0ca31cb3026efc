import { nodeVoltages } from './nodal.js';

/**
 * The network of one box in one state: nodes merged by what is closed, tied to sources or the reference, with
 * loads between nodes. Only what a tester can tell apart is worked out: source, reference, through a load,
 * divided, floating.
 */
export interface Element {
  a: number;
  b: number;
  loadId: string | null;
  /** Whether a low-impedance meter pulls through it. */
  conducts: boolean;
  /** At work. */
  ohms: number;
}

/** What a point is, as an instrument sees it. */
export type PointState =
  | { kind: 'source'; leg: string | null; circuit: number }
  /** `deadLine`: the line of a breaker that is off, which reads as reference while anything is left on. */
  | { kind: 'reference'; deadLine: boolean }
  | {
      kind: 'through';
      to: 'source' | 'reference';
      conducts: boolean;
      leg: string | null;
      loads: readonly string[];
    }
  | { kind: 'divided' }
  | { kind: 'floating' };

/** Nodes are numbered by the caller; ties hold for whole merged sets. */
export class Network {
  private readonly parent: number[];
  private readonly source: ({ circuit: number; leg: string | null; live: boolean } | undefined)[];
  private readonly grounded: boolean[];
  /** On a neutral that its breaker has opened: one for all who hang on it, and not the reference. */
  private isolated: Set<number> | null = null;
  readonly elements: Element[] = [];
  /** A source met the reference, or another leg. */
  readonly shorts: number[];
  /** By root; kept while nothing is added. */
  private states: (PointState | undefined)[] = [];
  private voltages: Map<number, number> | null = null;

  /**
   * @param of a number of nodes, all apart, or a network whose nodes and ties are taken over (and must not
   * change any more)
   */
  constructor(of: number | Network) {
    if (of instanceof Network) {
      ({
        parent: this.parent,
        source: this.source,
        grounded: this.grounded,
        isolated: this.isolated,
        shorts: this.shorts,
      } = of);
      return;
    }
    // Filled in turn: thousands are made in a second, and this is the fastest way to make small ones.
    this.parent = [];
    this.source = [];
    this.grounded = [];
    for (let node = 0; node < of; node++) {
      this.parent.push(node);
      this.source.push(undefined);
      this.grounded.push(false);
    }
    this.shorts = [];
  }

  /** The same network without some loads. */
  without(loads: ReadonlySet<string>): Network {
    const other = new Network(this);
    for (const element of this.elements)
      if (element.loadId === null || !loads.has(element.loadId)) other.elements.push(element);
    return other;
  }

  find(node: number): number {
    let root = node;
    while (this.parent[root] !== root) root = this.parent[root] as number;
    while (this.parent[node] !== root) {
      const next = this.parent[node] as number;
      this.parent[node] = root;
      node = next;
    }
    return root;
  }

  merge(a: number, b: number): void {
    const [left, right] = [this.find(a), this.find(b)];
    if (left === right) return;
    this.forget();
    this.parent[right] = left;
    const source = this.source[right];
    if (source) this.tieSource(left, source.circuit, source.leg, source.live);
    if (this.isolated?.has(right)) this.isolated.add(left);
    if (this.grounded[right]) this.tieReference(left);
  }

  tieSource(node: number, circuit: number, leg: string | null, live: boolean): void {
    this.forget();
    const root = this.find(node);
    const known = this.source[root];
    if (live && this.grounded[root]) this.shorts.push(circuit);
    if (known?.live && live && known.leg !== null && leg !== null && known.leg !== leg)
      this.shorts.push(circuit, known.circuit);
    if (!known || (live && !known.live)) this.source[root] = { circuit, leg, live };
  }

  tieReference(node: number): void {
    this.forget();
    const root = this.find(node);
    this.grounded[root] = true;
    const known = this.source[root];
    if (known?.live) this.shorts.push(known.circuit);
  }

  /** A neutral behind a breaker that opened it. */
  tieIsolated(node: number): void {
    this.forget();
    this.isolated ??= new Set();
    this.isolated.add(this.find(node));
  }

  isIsolated(node: number): boolean {
    return this.isolated?.has(this.find(node)) === true && !this.isReference(node);
  }

  /** Whether loads lead from a node to a neutral that was opened. */
  reachesIsolated(node: number): boolean {
    const at = [...(this.isolated ?? [])].find((other) => this.isIsolated(other));
    return at !== undefined && this.path(node, at) !== null;
  }

  addElement(element: Element): void {
    this.forget();
    this.elements.push(element);
  }

  private forget(): void {
    // Built in one go as a rule: nothing was asked yet, and nothing has to be let go.
    if (this.states.length > 0) this.states = [];
    this.voltages = null;
  }

  private own(root: number): PointState | null {
    const source = this.source[root];
    if (source?.live) return { kind: 'source', leg: source.leg, circuit: source.circuit };
    if (this.grounded[root]) return { kind: 'reference', deadLine: false };
    if (source) return { kind: 'reference', deadLine: true };
    return null;
  }

  /** The line side of a breaker that is off, though it may be tied to nothing else. */
  isLineSide(node: number): boolean {
    return this.source[this.find(node)] !== undefined;
  }

  /** The circuit of a line side, on or off. */
  circuitOf(node: number): number | undefined {
    return this.source[this.find(node)]?.circuit;
  }

  isReference(node: number): boolean {
    return this.grounded[this.find(node)] === true;
  }

  same(a: number, b: number): boolean {
    return this.find(a) === this.find(b);
  }

  state(node: number): PointState {
    const root = this.find(node);
    const kept = this.states[root];
    if (kept) return kept;
    const state = this.own(root) ?? this.throughLoads(root);
    this.states[root] = state;
    return state;
  }

  /**
   * What a node that is tied to nothing reaches through loads: nearest first, never through a source or the
   * reference.
   */
  private throughLoads(start: number): PointState {
    const seen = new Map<number, { conducts: boolean; loads: string[] }>([
      [start, { conducts: true, loads: [] }],
    ]);
    const queue = [start];
    let live: { conducts: boolean; leg: string | null; loads: string[] } | null = null;
    let ground: { conducts: boolean; loads: string[] } | null = null;
    // Loads of two legs on a neutral that lost its way back: it lies anywhere between the legs.
    let twoLegs = false;
    for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
      const path = seen.get(at) as { conducts: boolean; loads: string[] };
      for (const element of this.elements) {
        const [a, b] = [this.find(element.a), this.find(element.b)];
        const next = a === at ? b : b === at ? a : null;
        if (next === null || seen.has(next)) continue;
        const reached = {
          conducts: path.conducts && element.conducts,
          loads: element.loadId === null ? path.loads : [...path.loads, element.loadId],
        };
        const state = this.own(next);
        if (state?.kind === 'source') {
          if (live && oppositeLegs(live.leg, state.leg)) twoLegs = true;
          live ??= { ...reached, leg: state.leg };
          continue;
        }
        if (state?.kind === 'reference') {
          if (ground === null || (reached.conducts && !ground.conducts)) ground = reached;
          continue;
        }
        seen.set(next, reached);
        queue.push(next);
      }
    }
    if (twoLegs || (live && ground)) return { kind: 'divided' };
    if (live)
      return { kind: 'through', to: 'source', conducts: live.conducts, leg: live.leg, loads: live.loads };
    if (ground)
      return { kind: 'through', to: 'reference', conducts: ground.conducts, leg: null, loads: ground.loads };
    return { kind: 'floating' };
  }

  /**
   * Loads on the shortest path between two nodes; null when there is no path but through a source or the
   * reference itself. Everything tied to the reference is one to an ohmmeter: the neutral of the house, its
   * grounds, a bonded box. So is a neutral that was opened.
   *
   *     core ──(lamp)── return ── neutrals ══ reference        core to a known earth: through the lamp
   */
  path(from: number, to: number): { loads: string[]; known: boolean } | null {
    const one = (node: number) =>
      this.isReference(node) ? REFERENCE : this.isIsolated(node) ? ISOLATED : this.find(node);
    const [start, end] = [one(from), one(to)];
    const seen = new Map<number, { loads: string[]; known: boolean }>([[start, { loads: [], known: true }]]);
    const queue = [start];
    for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
      const path = seen.get(at) as { loads: string[]; known: boolean };
      for (const element of this.elements) {
        const [a, b] = [one(element.a), one(element.b)];
        const next = a === at ? b : b === at ? a : null;
        if (next === null || seen.has(next)) continue;
        const reached = {
          loads: element.loadId === null ? path.loads : [...path.loads, element.loadId],
          known: path.known && element.loadId !== null,
        };
        if (next === end) return reached;
        if (next < 0 || this.own(next)) continue;
        seen.set(next, reached);
        queue.push(next);
      }
    }
    return null;
  }

  /**
   * Ohms between two nodes, everything tied to the reference being one; infinite where nothing joins them.
   * @param ohmsOf of an element as it is then: a filament is cold
   */
  resistance(from: number, to: number, ohmsOf: (element: Element) => number): number {
    const one = (node: number) =>
      this.isReference(node) ? REFERENCE : this.isIsolated(node) ? ISOLATED : this.find(node);
    const [start, end] = [one(from), one(to)];
    if (start === end) return 0;
    const branches = this.elements.map((element) => ({
      a: one(element.a),
      b: one(element.b),
      ohms: ohmsOf(element),
    }));
    const volts = nodeVoltages(
      new Map([
        [start, 1],
        [end, 0],
      ]),
      branches,
    );
    let amps = 0;
    for (const { a, b, ohms } of branches)
      if (a !== b && (a === start || b === start)) amps += (1 - (volts.get(a === start ? b : a) ?? 1)) / ohms;
    return amps < LEAST_AMPS ? Number.POSITIVE_INFINITY : 1 / amps;
  }

  /** Whether the lamps of an element are lit, dark, or share the supply with others. */
  lit(element: Element): 'lit' | 'dark' | 'divided' {
    const [a, b] = [this.find(element.a), this.find(element.b)];
    if (a === b) return 'dark';
    const [left, right] = [this.own(a), this.own(b)];
    if (left && right) {
      if (left.kind === 'source' && right.kind === 'source')
        return oppositeLegs(left.leg, right.leg) ? 'lit' : 'dark';
      return left.kind === right.kind ? 'dark' : 'lit';
    }
    // No current comes to an end that is nothing or has one way only.
    if ([a, b].some((end) => !this.own(end) && this.state(end).kind !== 'divided')) return 'dark';
    const across = Math.abs((this.volts(a) ?? 0) - (this.volts(b) ?? 0));
    return across < NO_LIGHT ? 'dark' : 'divided';
  }

  /**
   * Voltage of a node in units of the supply: 1 on a leg, -1 on the opposite one, 0 on the reference; null on
   * what hangs on nothing.
   */
  volts(node: number): number | null {
    const root = this.find(node);
    const own = this.own(root);
    if (own) return this.voltsOf(own);
    this.voltages ??= this.solve();
    return this.voltages.get(root) ?? null;
  }

  private voltsOf(own: PointState): number {
    return own.kind === 'source' ? (own.leg === this.firstLeg() || own.leg === null ? 1 : -1) : 0;
  }

  /** Legs are named as the panel names them; any one of them counts as positive, the others as opposite. */
  private firstLeg(): string | null {
    let first: string | null = null;
    for (const source of this.source)
      if (source?.live && source.leg !== null && (first === null || source.leg < first)) first = source.leg;
    return first;
  }

  private solve(): Map<number, number> {
    const fixed = new Map<number, number>();
    this.parent.forEach((_, node) => {
      const own = this.find(node) === node ? this.own(node) : null;
      if (own) fixed.set(node, this.voltsOf(own));
    });
    const branches = this.elements.map(({ a, b, ohms }) => ({ a: this.find(a), b: this.find(b), ohms }));
    return nodeVoltages(fixed, branches);
  }
}

/** Stands for every node that is tied to the reference. */
/** A current less than this, at one volt, is none. */
const LEAST_AMPS = 1e-9;
const REFERENCE = -1;
/** Stands for every node on a neutral that its breaker has opened. */
const ISOLATED = -2;

/** Below this share of the supply a lamp shows nothing. */
const NO_LIGHT = 1e-6;

/** Both known, and not the same. */
function oppositeLegs(one: string | null, other: string | null): boolean {
  return one !== null && other !== null && one !== other;
}
