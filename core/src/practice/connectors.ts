import type { ConnectorKind } from '../terms/trade.js';

interface ConnectorFigures {
  id: string;
  kind: ConnectorKind;
  conductors: [number, number];
  section: [number, number];
  ports?: number;
  mL: number;
}

/**
 * Ranges that stand in until the catalogue brings its own. Twist-ons: total section; others: section of each
 * conductor.
 */
export const USUAL_CONNECTORS: readonly ConnectorFigures[] = [
  { id: 'usual-twist-on-small', kind: 'twist-on', conductors: [2, 3], section: [1.6, 4.2], mL: 1.6 },
  { id: 'usual-twist-on-medium', kind: 'twist-on', conductors: [2, 4], section: [2.6, 10.0], mL: 3.1 },
  { id: 'usual-twist-on-large', kind: 'twist-on', conductors: [2, 6], section: [4.1, 17.0], mL: 6.0 },
  { id: 'usual-lever-2', kind: 'lever', conductors: [2, 2], section: [0.5, 4.0], ports: 2, mL: 1.8 },
  { id: 'usual-lever-3', kind: 'lever', conductors: [2, 3], section: [0.5, 4.0], ports: 3, mL: 2.6 },
  { id: 'usual-lever-5', kind: 'lever', conductors: [2, 5], section: [0.5, 4.0], ports: 5, mL: 4.2 },
  {
    id: 'usual-terminal-block-1',
    kind: 'terminal-block',
    conductors: [2, 2],
    section: [0.5, 4.0],
    ports: 2,
    mL: 1.5,
  },
];
