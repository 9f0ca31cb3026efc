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
  const face = faceOf(box, contents);
  const bodies = bodiesOf(box, contents, face);
  return {
    face: { x: 0, y: 0, width: face.width, height: face.height, assumed: contents.opening === null },
    bodies,
    controls: controlsOf(box, bodies, face),
    section: sectionOf(box, contents),
  };
}

/*
 *      |<----------------- width ----------------->|
 *      |<first>|<----- spacing ----->|<----->|
 *              1                     2             the middle of each gang
 */
interface Face {
  width: number;
  height: number;
  /** The middle of what spans some gangs from one on. */
  centreOf: (gang: number, span: number) => number;
}

function faceOf(box: Box, contents: BoxContents): Face {
  const usual = contents.practice.face;
  const { gangs } = box.enclosure;
  const width = contents.opening?.width ?? usual.width + usual.spacing * (gangs - 1);
  const height = contents.opening?.height ?? usual.height;
  const spacing = gangs > 1 ? Math.min(usual.spacing, width / gangs) : width;
  const first = (width - spacing * (gangs - 1)) / 2;
  return {
    width,
    height,
    centreOf: (gang, span) => first + spacing * (gang - 1) + (spacing * (span - 1)) / 2,
  };
}

function bodiesOf(box: Box, contents: BoxContents, { height, centreOf }: Face): BoxGeometry['bodies'] {
  return contents.straps.flatMap((strap) => {
    const own = box.positions.filter((position) => strap.positions.includes(position.index));
    // One plate body may carry several controls: it stands in the middle of them, in the box's first gangs.
    const shared = strap.bodies.length < own.length;
    return strap.bodies.flatMap(({ position, body }) => {
      const place = box.positions.find((entry) => entry.index === position);
      if (body.width === 0) return [];
      const centre = shared
        ? centreOf(1, Math.min(box.enclosure.gangs, strap.gangs))
        : centreOf(place?.gang ?? position, Math.max(place?.width ?? 1, strap.gangs));
      return {
        x: centre - body.width / 2,
        y: (height - body.height) / 2,
        width: body.width,
        height: body.height,
        positions: shared ? strap.positions : [position],
      };
    });
  });
}

function controlsOf(
  box: Box,
  bodies: BoxGeometry['bodies'],
  { height, centreOf }: Face,
): BoxGeometry['controls'] {
  return box.positions.map(({ index, gang, width }) => {
    const body = bodies.find((entry) => entry.positions.includes(index));
    if (!body) return { position: index, x: centreOf(gang ?? index, width ?? 1), y: height / 2 };
    const order = body.positions.indexOf(index);
    return {
      position: index,
      x: body.x + (body.width * (order + 0.5)) / body.positions.length,
      y: body.y + body.height / 2,
    };
  });
}

function sectionOf({ enclosure }: Box, contents: BoxContents): BoxGeometry['section'] {
  const deepest = contents.straps
    .flatMap((strap) => strap.bodies)
    .reduce<BoxContents['straps'][number]['bodies'][number] | null>(
      (most, entry) =>
        most === null || entry.body.depth + entry.clearance > most.body.depth + most.clearance ? entry : most,
      null,
    );
  const has = deepest && deepest.body.depth > 0 ? deepest : null;
  return {
    setBack: enclosure.setBack ?? 0,
    rings: (enclosure.rings ?? []).map((ring) => ring.depth),
    depth: enclosure.depth > 0 ? enclosure.depth : null,
    body: has?.body.depth ?? 0,
    clearance: has?.clearance ?? 0,
    deepest: has?.position ?? null,
  };
}
