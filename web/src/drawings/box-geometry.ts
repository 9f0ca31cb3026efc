import type { Box, BoxContents } from '@inventario/core';

/** A rectangle in mm; x to the right, y down. */
interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface BoxGeometry {
  /**
   * The inside of the box seen from the room. `assumed`: its width and height were not measured, the usual
   * ones are drawn.
   */
  face: Rectangle & { assumed: boolean };
  bodies: (Rectangle & { positions: number[] })[];
  /** Where a control of each position is, on its body or on its empty place. */
  controls: { position: number; x: number; y: number }[];
  section: {
    /**
     * Behind the finished face: where the box begins, what rings add, and its own depth. null: not measured.
     */
    setBack: number;
    rings: number[];
    depth: number | null;
    /** Room wanted behind the face: the deepest body and the conductors folded behind it. */
    body: number;
    clearance: number;
    deepest: number | null;
  };
}

/** The box's face and its section, to one scale, from what is or will be in it. */
export function boxGeometry(box: Box, contents: BoxContents): BoxGeometry {
  const usual = contents.practice.face;
  const { gangs } = box.enclosure;
  const width = contents.opening?.width ?? usual.width + usual.spacing * (gangs - 1);
  const height = contents.opening?.height ?? usual.height;
  const spacing = gangs > 1 ? Math.min(usual.spacing, width / gangs) : width;
  const first = (width - spacing * (gangs - 1)) / 2;
  const centreOf = (gang: number, span: number) => first + spacing * (gang - 1) + (spacing * (span - 1)) / 2;

  const bodies: BoxGeometry['bodies'] = [];
  for (const strap of contents.straps) {
    const own = box.positions.filter((position) => strap.positions.includes(position.index));
    for (const { position, body } of strap.bodies) {
      const place = box.positions.find((entry) => entry.index === position);
      if (body.width === 0) continue;
      // One plate body may carry several controls: it stands in the middle of them, in the box's first gangs.
      const shared = strap.bodies.length < own.length;
      const centre = shared
        ? centreOf(1, Math.min(gangs, strap.gangs))
        : centreOf(place?.gang ?? position, Math.max(place?.width ?? 1, strap.gangs));
      bodies.push({
        x: centre - body.width / 2,
        y: (height - body.height) / 2,
        width: body.width,
        height: body.height,
        positions: shared ? strap.positions : [position],
      });
    }
  }
  const controls = box.positions.map((position) => {
    const body = bodies.find((entry) => entry.positions.includes(position.index));
    if (!body)
      return {
        position: position.index,
        x: centreOf(position.gang ?? position.index, position.width ?? 1),
        y: height / 2,
      };
    const order = body.positions.indexOf(position.index);
    return {
      position: position.index,
      x: body.x + (body.width * (order + 0.5)) / body.positions.length,
      y: body.y + body.height / 2,
    };
  });

  const deepest = contents.straps
    .flatMap((strap) => strap.bodies)
    .reduce<BoxContents['straps'][number]['bodies'][number] | null>(
      (most, entry) =>
        most === null || entry.body.depth + entry.clearance > most.body.depth + most.clearance ? entry : most,
      null,
    );
  return {
    face: { x: 0, y: 0, width, height, assumed: contents.opening === null },
    bodies,
    controls,
    section: {
      setBack: box.enclosure.setBack ?? 0,
      rings: (box.enclosure.rings ?? []).map((ring) => ring.depth),
      depth: box.enclosure.depth > 0 ? box.enclosure.depth : null,
      body: deepest?.body.depth ?? 0,
      clearance: deepest && deepest.body.depth > 0 ? deepest.clearance : 0,
      deepest: deepest && deepest.body.depth > 0 ? deepest.position : null,
    },
  };
}
