import { Joined } from '../../electrics/joined.js';
import type { At, Box, Reading } from '../../job/schema/survey.js';
import { looksLikeGround } from '../../practice/wire.js';

/**
 * The box in parts that tell nothing about each other: no joint, cable, device or reading joins them. Each is
 * a box of its own, so that its explanations multiply with nobody's. Grounds follow their cable; their joints
 * join nothing here.
 *
 *     feed A ─┬─ switch 1 ─ lamp A        one part
 *     feed B ─┴─ switch 2 ─ lamp B        another, unless neutrals share a joint or a reading spans both
 */
export function splitBox(box: Box): Box[] {
  const joined = new Joined();
  const place = (at: At): string | null =>
    at.joint !== undefined
      ? `joint:${at.joint}`
      : at.position !== undefined
        ? `position:${at.position}`
        : null;
  for (const conductor of box.conductors) {
    if (looksLikeGround(conductor)) continue;
    const own = conductor.cableId !== undefined ? `cable:${conductor.cableId}` : `tail:${conductor.id}`;
    if (conductor.throughCableId !== undefined) joined.merge(own, `cable:${conductor.throughCableId}`);
    for (const at of conductor.ends ?? (conductor.at ? [conductor.at] : [])) {
      const node = place(at);
      if (node) joined.merge(own, node);
    }
  }
  for (const position of box.positions)
    for (const lead of position.leads ?? []) {
      const node = place(lead.at);
      if (node) joined.merge(`position:${position.index}`, node);
    }

  const cableOf = new Map(box.conductors.map((conductor) => [conductor.id, conductor.cableId]));
  const nodesOf = (reading: Reading): string[] => {
    const cores = [...reading.points, ...(reading.tool === 'lamp' ? (reading.lifted ?? []) : [])].flatMap(
      (point) => {
        const cable = cableOf.get(point);
        const conductor = box.conductors.find((entry) => entry.id === point);
        return cable !== undefined && conductor && !looksLikeGround(conductor) ? [`cable:${cable}`] : [];
      },
    );
    const positions =
      reading.tool === 'lamp'
        ? box.positions
            .filter((position) => position.loadIds.some((load) => reading.points.includes(load)))
            .map((position) => `position:${position.index}`)
        : [];
    return [...cores, ...positions];
  };
  // A lamp that no position works is seen through whatever was lifted for it; a breaker through everything.
  const joinedBy = new Map<string, string[]>();
  for (const reading of box.readings) {
    const nodes = nodesOf(reading);
    const key = reading.tool === 'lamp' ? `lamp:${reading.points[0]}` : reading.id;
    joinedBy.set(key, [...(joinedBy.get(key) ?? []), ...nodes]);
  }
  for (const nodes of joinedBy.values())
    for (const node of nodes.slice(1)) joined.merge(nodes[0] as string, node);
  const all = [
    ...box.cables.map((cable) => `cable:${cable.id}`),
    ...box.positions.map((position) => `position:${position.index}`),
  ];
  if (box.readings.some((reading) => reading.tool === 'breaker'))
    for (const node of all.slice(1)) joined.merge(all[0] as string, node);

  const roots = [...new Set(all.map((node) => joined.find(node)))];
  if (roots.length < 2) return [box];
  return roots.map((root) => {
    const inside = (node: string) => joined.find(node) === root;
    const conductors = box.conductors.filter((conductor) =>
      inside(conductor.cableId !== undefined ? `cable:${conductor.cableId}` : `tail:${conductor.id}`),
    );
    return {
      ...box,
      cables: box.cables.filter((cable) => inside(`cable:${cable.id}`)),
      conductors,
      joints: box.joints.filter((joint) => inside(`joint:${joint.id}`)),
      positions: box.positions.filter((position) => inside(`position:${position.index}`)),
      readings: box.readings.filter((reading) => {
        const own = nodesOf(reading);
        const nodes =
          own.length > 0
            ? own
            : (joinedBy.get(reading.tool === 'lamp' ? `lamp:${reading.points[0]}` : reading.id) ?? []);
        // What names nothing of any part stands with the first.
        return nodes.length > 0 ? nodes.some(inside) : root === roots[0];
      }),
    };
  });
}
