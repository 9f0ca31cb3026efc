import type { Connector } from '../job/schema/catalogue.js';
import type { ConnectorKind, WireSize } from '../job/schema/primitives.js';
import type { Joint } from '../job/schema/survey.js';
import { USUAL_CONNECTORS } from '../practice/connectors.js';
import type { PracticeProfile } from '../practice/profile.js';
import { WIRE } from '../practice/wire.js';
import { perObject } from '../units/kept.js';
import { millilitres } from '../units/volume.js';

/** A connector ready to be asked what it holds. Volume in mL, sections in mm2. */
export interface ConnectorChoice {
  id: string;
  kind: ConnectorKind;
  conductors: readonly [number, number];
  section: readonly [number, number];
  ml: number;
}

export interface BundleMember {
  size: WireSize;
  aluminium?: boolean;
}

/**
 * The connectors to choose from, smallest first: the catalogue's of a kind replace the usual ones of that
 * kind.
 */
export const connectorRange: (catalogue: readonly Connector[]) => ConnectorChoice[] = perObject(makeRange);

function makeRange(catalogue: readonly Connector[]): ConnectorChoice[] {
  const own = new Set(catalogue.map((connector) => connector.kind));
  return [...catalogue, ...USUAL_CONNECTORS.filter((usual) => !own.has(usual.kind))]
    .map((connector) => ({
      id: connector.id,
      kind: connector.kind,
      conductors: [
        connector.conductors?.[0] ?? 2,
        Math.min(connector.conductors?.[1] ?? 99, portLimit(connector)),
      ] as const,
      section: [connector.section?.[0] ?? 0, connector.section?.[1] ?? Number.POSITIVE_INFINITY] as const,
      ml: millilitres(connector) ?? 0,
    }))
    .sort((a, b) => a.ml - b.ml);
}

/** Levers and blocks take one conductor a port; a twist-on has one opening for the bundle. */
function portLimit(connector: Pick<Connector, 'kind' | 'ports'>): number {
  return connector.kind === 'lever' || connector.kind === 'terminal-block' ? (connector.ports ?? 99) : 99;
}

/** Whether the connector takes exactly this bundle. None takes aluminium. */
export function holds(connector: ConnectorChoice, members: readonly BundleMember[]): boolean {
  if (members.length < connector.conductors[0] || members.length > connector.conductors[1]) return false;
  if (members.some((member) => member.aluminium)) return false;
  const [least, greatest] = connector.section;
  const sections = members.map((member) => WIRE[member.size].section);
  if (connector.kind === 'twist-on' || connector.kind === 'crimp') {
    // Sums of sections such as 2.08 + 2.08 + 0.82 carry binary dust; a limit that is met exactly is met.
    const total = sections.reduce((sum, section) => sum + section, 0);
    return total >= least - 1e-9 && total <= greatest + 1e-9;
  }
  return sections.every((section) => section >= least && section <= greatest);
}

/** The smallest connector, of the first of the kinds that holds the bundle. */
export function chooseConnector(
  members: readonly BundleMember[],
  kinds: readonly ConnectorKind[],
  range: readonly ConnectorChoice[],
): ConnectorChoice | undefined {
  for (const kind of kinds) {
    const choice = range.find((connector) => connector.kind === kind && holds(connector, members));
    if (choice) return choice;
  }
  return undefined;
}

/**
 * The connector of a joint as found: the smallest of its kind that holds it; when none does, the largest of
 * its kind, since it is there all the same. A kind nobody recognised counts as the usual one.
 */
export function foundConnector(
  kind: Joint['connector'],
  members: readonly BundleMember[],
  practice: PracticeProfile,
  range: readonly ConnectorChoice[],
): ConnectorChoice | undefined {
  const counted = kind === 'unknown' || kind === 'other' ? practice.connectors.usual : kind;
  return (
    chooseConnector(members, [counted], range) ?? range.findLast((connector) => connector.kind === counted)
  );
}
