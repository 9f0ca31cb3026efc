import type { Box } from '@inventario/core';
import { fanLayout } from './fan-layout.js';
import { INSULATION } from './insulation.js';

const STEP = 15;
const NONE: Parameters<typeof fanLayout>[1] = new Map();

/** A box in small: its cables' colours, what is joined, what is on the switch. Told in words beside it. */
export function BoxThumbnail({ box }: { box: Box }) {
  const layout = fanLayout(box, NONE);
  const width =
    Math.max(
      4,
      layout.groups.reduce((most, { to }) => Math.max(most, to + 1), 1),
    ) * STEP;
  const x = (column: number) => column * STEP + STEP / 2;
  const jointY = (row: number) => 30 + row * 9;
  const deviceY = 34 + Math.max(1, layout.joints.length) * 9;
  const yOf = (end: Box['conductors'][number]['at']) => {
    const joint = layout.joints.find(({ jointId }) => jointId === end?.joint);
    if (joint) return jointY(joint.row);
    return end?.position === undefined ? 26 : deviceY;
  };
  const height = deviceY + 12;
  return (
    <svg aria-hidden="true" viewBox={`0 0 ${width} ${height}`} className="board h-16 w-full rounded">
      {layout.groups
        .filter(({ cableId }) => cableId !== null)
        .map(({ cableId, from, to }) => (
          <rect
            key={cableId}
            x={from * STEP + 1}
            y="0"
            width={(to - from + 1) * STEP - 2}
            height="8"
            rx="2"
            fill="var(--well)"
          />
        ))}
      {layout.joints.map(({ jointId, from, to, row }) => (
        <rect
          key={jointId}
          x={x(from) - 4}
          y={jointY(row) - 3}
          width={x(to) - x(from) + 8}
          height="6"
          rx="3"
          fill="var(--joint)"
        />
      ))}
      {layout.devices.map(({ position, screws }) => {
        const used = screws.filter(({ free }) => !free).map(({ column }) => column);
        if (used.length === 0) return null;
        const [from, to] = [Math.min(...used), Math.max(...used)];
        return (
          <rect
            key={position}
            x={x(from) - 6}
            y={deviceY}
            width={x(to) - x(from) + 12}
            height="9"
            rx="2"
            fill="var(--sheet)"
            stroke="var(--edge)"
          />
        );
      })}
      {layout.columns.map(({ conductor, at, ends, made }) => {
        const ys = ends.map(yOf);
        const [top, bottom] = made ? [Math.min(...ys), Math.max(...ys)] : [8, ys[0] ?? 20];
        return (
          <g key={conductor.id}>
            <path d={`M${x(at)} ${top}V${bottom}`} stroke="var(--edge)" strokeWidth="5" />
            <path
              d={`M${x(at)} ${top}V${bottom}`}
              stroke={INSULATION[conductor.colour].fill}
              strokeWidth="3.6"
            />
          </g>
        );
      })}
    </svg>
  );
}
