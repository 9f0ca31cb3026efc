import type { RuleFigure } from './figures/figure.js';

/** Names of the counting rules, as results print them. */
export type FillMethod = 'nec-2017' | 'nec-2020' | 'nec-2023' | 'cec-12-3034' | 'none';

/** What a line of a count is for. */
export type FillRule =
  | 'conductor'
  | 'loop'
  | 'clamps'
  | 'support'
  | 'device'
  | 'ground'
  | 'ground-extra'
  | 'isolated-ground'
  | 'terminal-block'
  | 'connectors';

/** How a practice counts the fill of a box. Values stand in its figures alone. */
export interface CountingRule {
  method: FillMethod;
  /**
   * `by-yoke`: a yoke counts by the conductors joined to it, grounds together, clamps and blocks for
   * themselves. `by-pair`: connectors count in pairs, a deep device by its depth, bare grounds not at all.
   */
  scheme: 'by-yoke' | 'by-pair';
  clauses: Record<FillRule, string>;
  capacityClause: string;
  figures: readonly RuleFigure[];
  isolatedGroundsApart: boolean;
  terminalBlocksCount: boolean;
}
