import { Joined } from '../../electrics/joined.js';
import { conductorsById } from '../../job/lookup.js';
import type { At, Box, Conductor, Reading } from '../../job/schema/survey.js';
import { looksLikeGround } from '../../practice/wire.js';
import { entryAt } from '../../units/entry-at.js';

/**
 * The box in pieces that tell nothing about each other: no joint, cable, device or reading joins them. Each
 * is a box of its own, so that its explanations multiply with nobody's. Grounds follow their cable; their
 * joints join nothing here.
 *
 *     feed A ─┬─ switch 1 ─ lamp A        one piece
 *     feed B ─┴─ switch 2 ─ lamp B        another, unless neutrals share a joint or a reading spans both
 */
export function splitBox(box: Box): Box[] {
  const joined = new Joined();
  joinWiring(box, joined);
  const nodesOf = nodesByReading(box);
  const all = [
    ...box.cables.map((cable) => `cable:${cable.id}`),
    ...box.positions.map((position) => `position:${position.index}`),
  ];
  for (const nodes of nodesOf.together.values()) joinAll(joined, nodes);
  if (box.readings.some((reading) => reading.tool === 'breaker')) joinAll(joined, all);

  const roots = [...new Set(all.map((node) => joined.find(node)))];
  if (roots.length < 2) return [box];
  return roots.map((root) => {
    const inside = (node: string) => joined.find(node) === root;
    return {
      ...box,
      cables: box.cables.filter((cable) => inside(`cable:${cable.id}`)),
      conductors: box.conductors.filter((conductor) => inside(nodeOfConductor(conductor))),
      joints: box.joints.filter((joint) => inside(`joint:${joint.id}`)),
      positions: box.positions.filter((position) => inside(`position:${position.index}`)),
      readings: box.readings.filter((reading) => {
        const nodes = nodesOf.reading(reading);
        // What names nothing of any piece stands with the first.
        return nodes.length > 0 ? nodes.some(inside) : root === roots[0];
      }),
    };
  });
}

function joinAll(joined: Joined, nodes: readonly string[]): void {
  for (const node of nodes) joined.merge(entryAt(nodes, 0), node);
}

function nodeOfConductor({ id, cableId }: Conductor): string {
  return cableId !== undefined ? `cable:${cableId}` : `tail:${id}`;
}

function nodeOfPlace(at: At): string | null {
  if (at.joint !== undefined) return `joint:${at.joint}`;
  return at.position !== undefined ? `position:${at.position}` : null;
}

/** By joints, devices, tails and cables that pass through. */
function joinWiring(box: Box, joined: Joined): void {
  for (const conductor of box.conductors) {
    if (looksLikeGround(conductor)) continue;
    const own = nodeOfConductor(conductor);
    if (conductor.throughCableId !== undefined) joined.merge(own, `cable:${conductor.throughCableId}`);
    for (const at of conductor.ends ?? (conductor.at ? [conductor.at] : [])) {
      const node = nodeOfPlace(at);
      if (node) joined.merge(own, node);
    }
  }
  for (const position of box.positions)
    for (const lead of position.leads ?? []) {
      const node = nodeOfPlace(lead.at);
      if (node) joined.merge(`position:${position.index}`, node);
    }
}

/** Which cables and positions each reading speaks of, and those that one look speaks of together. */
function nodesByReading(box: Box): {
  together: ReadonlyMap<string, string[]>;
  reading: (reading: Reading) => readonly string[];
} {
  const conductors = conductorsById(box);
  const cableAt = (point: string): string[] => {
    const conductor = conductors.get(point);
    return conductor?.cableId !== undefined && !looksLikeGround(conductor)
      ? [`cable:${conductor.cableId}`]
      : [];
  };
  const own = (reading: Reading): string[] => {
    const lamp = reading.tool === 'lamp';
    const points = [...reading.points, ...(lamp ? (reading.lifted ?? []) : [])];
    const worked = box.positions.filter(({ loadIds }) => loadIds.some((id) => reading.points.includes(id)));
    return [
      ...points.flatMap(cableAt),
      ...(lamp ? worked.map((position) => `position:${position.index}`) : []),
    ];
  };
  // A lamp that no position works is seen through whatever was lifted for it; a breaker through everything.
  const keyOf = (reading: Reading) => (reading.tool === 'lamp' ? `lamp:${reading.points[0]}` : reading.id);
  const together = new Map<string, string[]>();
  for (const reading of box.readings)
    together.set(keyOf(reading), [...(together.get(keyOf(reading)) ?? []), ...own(reading)]);
  return {
    together,
    reading: (reading) => {
      const nodes = own(reading);
      return nodes.length > 0 ? nodes : (together.get(keyOf(reading)) ?? []);
    },
  };
}
