import type { FiguresInUse } from '../job/figures.js';
import type { FillMethod, FillRule } from '../practice/counting.js';
import { largestSize, WIRE } from '../practice/wire.js';
import type { WireSize } from '../terms/trade.js';
import { rounded } from '../units/volume.js';
import type { BoxContents, ContentConductor, Strap } from './contents.js';

/** One allowance: `count` times `eachMl`. `what` says of which size, or how deep. */
export interface FillLine {
  rule: FillRule;
  clause: string;
  what: string;
  count: number;
  eachMl: number;
  ml: number;
  size: WireSize | null;
}

export interface FillResult {
  method: FillMethod;
  capacityMl: number | null;
  usedMl: number | null;
  remainingMl: number | null;
  verdict: 'ok' | 'over' | 'no-rule';
  lines: FillLine[];
}

type FillFigures = NonNullable<FiguresInUse['fill']>;

/** Used may exceed capacity by this much, mL, before the verdict turns: conversion dust, not room. */
const FILL_TOLERANCE = 0.05;

/**
 * Box fill by the counting rule of the practice, volumes in mL, unrounded; see {@link printedFill}.
 * Source: the counting rule of the practice, NEC 314.16 or CE Code 12-3034; where there is none, no count.
 */
export function fill(contents: BoxContents): FillResult {
  const { capacity } = contents;
  const figures = contents.figures.fill;
  if (!figures) {
    return {
      method: 'none',
      capacityMl: capacity.ml,
      usedMl: null,
      remainingMl: null,
      verdict: 'no-rule',
      lines: [],
    };
  }
  const lines =
    figures.scheme === 'by-pair'
      ? [
          ...caConductors(contents, figures),
          ...caSupport(contents, figures),
          ...caStraps(contents, figures),
          ...caConnectors(contents, figures),
        ]
      : [
          ...conductors(contents, figures),
          ...grounds(contents, figures),
          ...clampsAndSupport(contents, figures),
          ...straps(contents, figures),
          ...terminalBlocks(contents, figures),
        ];
  const usedMl = lines.reduce((sum, line) => sum + line.ml, 0);
  const { ml } = capacity;
  return {
    method: figures.method,
    capacityMl: ml,
    usedMl,
    remainingMl: ml === null ? null : ml - usedMl,
    verdict: ml === null || !capacity.standing ? 'no-rule' : usedMl - ml > FILL_TOLERANCE ? 'over' : 'ok',
    lines,
  };
}

/** The result rounded for printing: 0.001 mL, each line's count times its each. */
export function printedFill(result: FillResult): FillResult {
  const round = (value: number | null) => (value === null ? null : rounded(value, 3));
  return {
    ...result,
    capacityMl: round(result.capacityMl),
    usedMl: round(result.usedMl),
    remainingMl: round(result.remainingMl),
    lines: result.lines.map((line) => ({
      ...line,
      eachMl: rounded(line.eachMl, 3),
      ml: rounded(line.ml, 3),
    })),
  };
}

/** Adds up equal allowances: one line for each rule and size, sizes from small to large. */
class Tally {
  private readonly counts = new Map<WireSize, number>();
  constructor(
    private readonly rule: FillRule,
    private readonly figures: FillFigures,
    private readonly share = 1,
  ) {}

  add(size: WireSize, count = 1): void {
    if (count > 0) this.counts.set(size, (this.counts.get(size) ?? 0) + count);
  }

  lines(): FillLine[] {
    return [...this.counts]
      .sort(([a], [b]) => WIRE[a].section - WIRE[b].section)
      .map(([size, count]) => {
        const eachMl = this.figures.allowance[WIRE[size].gauge] * this.share;
        return {
          rule: this.rule,
          clause: this.figures.clauses[this.rule],
          what: size,
          size,
          count,
          eachMl,
          ml: count * eachMl,
        };
      });
  }
}

function largestInBox(contents: BoxContents): WireSize | undefined {
  return largestSize(contents.conductors.map((conductor) => conductor.size));
}

function conductors(contents: BoxContents, figures: FillFigures): FillLine[] {
  const single = new Tally('conductor', figures);
  const loops = new Tally('loop', figures);
  for (const conductor of contents.conductors) {
    if (!conductor.fromOutside || conductor.ground || conductor.isolatedGround) continue;
    if (conductor.longLoop) loops.add(conductor.size, 2);
    else single.add(conductor.size);
  }
  return [...single.lines(), ...loops.lines()];
}

function grounds(contents: BoxContents, figures: FillFigures): FillLine[] {
  const all = contents.conductors.filter(
    (conductor) => conductor.fromOutside && (conductor.ground || conductor.isolatedGround),
  );
  const apart = figures.isolatedGroundsApart ? all.filter((conductor) => conductor.isolatedGround) : [];
  const together = all.filter((conductor) => !apart.includes(conductor));
  const once = (rule: 'ground' | 'isolated-ground', group: ContentConductor[]) => {
    const tally = new Tally(rule, figures);
    const size = largestSize(group.map((conductor) => conductor.size));
    if (size) tally.add(size);
    return tally.lines();
  };
  const extra = new Tally('ground-extra', figures, 0.25);
  const largest = largestSize(together.map((conductor) => conductor.size));
  if (largest) extra.add(largest, together.length - figures.groundsTogether);
  return [...once('ground', together), ...extra.lines(), ...once('isolated-ground', apart)];
}

function clampsAndSupport(contents: BoxContents, figures: FillFigures): FillLine[] {
  const size = largestInBox(contents);
  if (!size) return [];
  const clamps = new Tally('clamps', figures);
  if (contents.internalClamps) clamps.add(size);
  const support = new Tally('support', figures);
  support.add(size, contents.supportFittings);
  return [...clamps.lines(), ...support.lines()];
}

/** Twice the strap's conductor for each gang it takes. */
function straps(contents: BoxContents, figures: FillFigures): FillLine[] {
  const tally = new Tally('device', figures);
  for (const strap of contents.straps) {
    const size = strap.size ?? largestInBox(contents);
    if (size) tally.add(size, 2 * strap.gangs);
  }
  return tally.lines();
}

function terminalBlocks(contents: BoxContents, figures: FillFigures): FillLine[] {
  if (!figures.terminalBlocksCount) return [];
  const assemblies = new Map<string, WireSize>();
  for (const connector of contents.connectors) {
    if (connector.kind !== 'terminal-block' || connector.largest === undefined) continue;
    const known = assemblies.get(connector.assembly);
    assemblies.set(
      connector.assembly,
      largestSize(known ? [known, connector.largest] : [connector.largest]) as WireSize,
    );
  }
  const tally = new Tally('terminal-block', figures);
  for (const size of assemblies.values()) tally.add(size);
  return tally.lines();
}

/**
 * Bare bonding conductors count nothing; insulated ones count like any conductor, and the line says how many.
 */
function caConductors(contents: BoxContents, figures: FillFigures): FillLine[] {
  const tally = new Tally('conductor', figures);
  const bonding = new Map<WireSize, number>();
  for (const conductor of contents.conductors) {
    if (!conductor.fromOutside || conductor.bare) continue;
    tally.add(conductor.size);
    if (conductor.ground) bonding.set(conductor.size, (bonding.get(conductor.size) ?? 0) + 1);
  }
  return tally.lines().map((line) => {
    const count = line.size ? bonding.get(line.size) : undefined;
    return count === undefined
      ? line
      : { ...line, what: `${line.what}, ${count} insulated bonding among them` };
  });
}

function caSupport(contents: BoxContents, figures: FillFigures): FillLine[] {
  const tally = new Tally('support', figures);
  const size = largestInBox(contents);
  if (size && contents.supportFittings > 0) tally.add(size);
  return tally.lines();
}

/** Two conductors a strap; a device deeper than 25.4 mm counts by its whole depth instead. */
function caStraps(contents: BoxContents, figures: FillFigures): FillLine[] {
  const tally = new Tally('device', figures);
  const deep: FillLine[] = [];
  const size = largestInBox(contents);
  for (const strap of contents.straps) {
    const depth = deepestBody(strap);
    if (depth > figures.deepDevice.from) {
      const each = figures.deepDevice.mlPerMm;
      deep.push({
        rule: 'device',
        clause: figures.clauses.device,
        what: `${depth} mm deep`,
        size: null,
        count: depth,
        eachMl: each,
        ml: depth * each,
      });
    } else if (size) {
      tally.add(size, 2);
    }
  }
  return [...tally.lines(), ...merged(deep)];
}

function merged(deep: FillLine[]): FillLine[] {
  const [first] = deep;
  if (!first || deep.length === 1) return deep;
  const count = deep.reduce((sum, line) => sum + line.count, 0);
  return [{ ...first, what: deep.map((line) => line.what).join(', '), count, ml: count * first.eachMl }];
}

function deepestBody(strap: Strap): number {
  return Math.max(0, ...strap.bodies.map(({ body }) => body.depth));
}

/** One conductor for each pair of connectors, those that join only bare conductors left out. */
function caConnectors(contents: BoxContents, figures: FillFigures): FillLine[] {
  const tally = new Tally('connectors', figures);
  const counted = contents.connectors.filter(
    (connector) =>
      !connector.onlyBare &&
      (connector.kind === 'twist-on' || connector.kind === 'lever' || connector.kind === 'unknown'),
  );
  const size = largestInBox(contents);
  if (size) tally.add(size, Math.floor(counted.length / 2));
  return tally.lines();
}
