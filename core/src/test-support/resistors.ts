/**
 * A plain solver of resistor networks, for tests: every node's currents sum to nothing, written down as one
 * dense system and eliminated with exchange of rows. It knows nothing of roles, and shares no code with the
 * engines.
 */
export class Resistors {
  private readonly numbers = new Map<string, number>();
  private readonly branches: { a: number; b: number; siemens: number }[] = [];
  private readonly currents: { node: number; amps: number }[] = [];
  private readonly sources: { node: number; siemens: number; volts: number }[] = [];

  private number(node: string): number {
    let number = this.numbers.get(node);
    if (number === undefined) {
      number = this.numbers.size;
      this.numbers.set(node, number);
    }
    return number;
  }

  resistor(a: string, b: string, ohms: number): void {
    if (a !== b) this.branches.push({ a: this.number(a), b: this.number(b), siemens: 1 / ohms });
  }

  /** A piece of wire, a closed contact. */
  wire(a: string, b: string): void {
    this.resistor(a, b, 0.01);
  }

  /** Held at a voltage to earth through a resistance. */
  source(node: string, volts: number, ohms: number): void {
    this.sources.push({ node: this.number(node), siemens: 1 / ohms, volts });
  }

  /** A current driven into a node, as a meter does between its leads. */
  current(node: string, amps: number): void {
    this.currents.push({ node: this.number(node), amps });
  }

  /** Volts of every node to earth. What hangs on nothing leaks to earth through more than any meter shows. */
  solve(): (node: string) => number {
    const size = this.numbers.size;
    const rows: Float64Array[] = Array.from({ length: size }, () => new Float64Array(size + 1));
    for (let node = 0; node < size; node++) (rows[node] as Float64Array)[node] = LEAK;
    const add = (row: number, column: number, value: number) => {
      const line = rows[row] as Float64Array;
      line[column] = (line[column] as number) + value;
    };
    for (const { a, b, siemens } of this.branches) {
      add(a, a, siemens);
      add(b, b, siemens);
      add(a, b, -siemens);
      add(b, a, -siemens);
    }
    for (const { node, siemens, volts } of this.sources) {
      add(node, node, siemens);
      add(node, size, siemens * volts);
    }
    for (const { node, amps } of this.currents) add(node, size, amps);
    for (let column = 0; column < size; column++) {
      let pivot = column;
      for (let row = column + 1; row < size; row++)
        if (
          Math.abs((rows[row] as Float64Array)[column] as number) >
          Math.abs((rows[pivot] as Float64Array)[column] as number)
        )
          pivot = row;
      [rows[column], rows[pivot]] = [rows[pivot] as Float64Array, rows[column] as Float64Array];
      const own = rows[column] as Float64Array;
      for (let row = 0; row < size; row++) {
        if (row === column) continue;
        const line = rows[row] as Float64Array;
        const share = (line[column] as number) / (own[column] as number);
        if (share !== 0)
          for (let at = column; at <= size; at++)
            line[at] = (line[at] as number) - share * (own[at] as number);
      }
    }
    return (node) => {
      const at = this.numbers.get(node);
      if (at === undefined) return 0;
      const row = rows[at] as Float64Array;
      return (row[size] as number) / (row[at] as number);
    };
  }
}

const LEAK = 1e-12;
