import type { Label, Role } from '@inventario/core';
import { Plus } from 'lucide-react';
import type { FanColumn, FanLayout } from './fan-layout.js';
import { RoleMark } from './role-mark.js';
import { Strand } from './strand.js';

export const COLUMN = 50;
export const CABLE = 44;
export const STRANDS = 66;
export const MARKS = 46;
export const BUS = 24;
export const DEVICE = 46;

/** What the readings make of a conductor. */
export interface SaidRole {
  role: Role;
  grade: 'guess' | 'indicated' | 'confirmed';
}

export const centre = (column: number) => column * COLUMN + COLUMN / 2;

export function JointDrawing({
  joint,
  y,
  clashes,
}: {
  joint: FanLayout['joints'][number];
  y: number;
  clashes: boolean;
}) {
  return (
    <g>
      <line
        x1={centre(joint.from)}
        x2={centre(joint.to)}
        y1={y}
        y2={y}
        stroke={clashes ? 'var(--stop)' : 'currentColor'}
        strokeWidth={clashes ? 5 : 2.5}
        strokeDasharray={clashes ? '8 4' : undefined}
      />
      {joint.members.map((member) => (
        <circle key={member} cx={centre(member)} cy={y} r="5" fill="currentColor" />
      ))}
      <text
        x={centre(joint.from) + 9}
        y={y - 4}
        fontSize="11"
        fontWeight="600"
        fill="currentColor"
        paintOrder="stroke"
        stroke="var(--sheet)"
        strokeWidth="4"
      >
        {joint.number}
      </text>
    </g>
  );
}

/** What is written beside a screw, where the name of its terminal is too long for it. */
const SCREW_WORDS: Readonly<Record<string, string>> = { common: 'com', ground: 'gnd' };

export function DeviceDrawing({
  device,
  y,
  name,
}: {
  device: FanLayout['devices'][number];
  y: number;
  name: string;
}) {
  return (
    <g>
      <rect
        x={centre(device.from) - 20}
        y={y + 10}
        width={centre(device.to) - centre(device.from) + 40}
        height={DEVICE - 14}
        rx="4"
        fill="var(--well)"
        stroke="currentColor"
        strokeWidth="1.4"
      />
      {device.screws.map((screw) => (
        <g key={`${screw.terminal}${screw.column}`}>
          <circle
            cx={centre(screw.column)}
            cy={y + 10}
            r="7"
            fill="var(--sheet)"
            stroke="currentColor"
            strokeWidth="1.4"
          />
          <path d={`M${centre(screw.column) - 4} ${y + 10}h8`} stroke="currentColor" strokeWidth="1.6" />
          <text x={centre(screw.column) + 10} y={y + 25} fontSize="11" fontWeight="600" fill="currentColor">
            {SCREW_WORDS[screw.terminal] ?? screw.terminal}
          </text>
        </g>
      ))}
      <text x={centre(device.from) - 14} y={y + 37} fontSize="11" fill="currentColor">
        {device.position} {name}
      </text>
    </g>
  );
}

export function CableHead({
  group,
  onCable,
}: {
  group: FanLayout['groups'][number];
  onCable: (cableId: string) => void;
}) {
  const { cableId, from, to, label } = group;
  return (
    <div className="absolute top-0 px-0.5" style={{ left: from * COLUMN, width: (to - from + 1) * COLUMN }}>
      {cableId === null ? (
        <div className="flex h-11 items-center justify-center text-center text-sm leading-none text-soft">
          {label}
        </div>
      ) : (
        <button
          type="button"
          onClick={() => onCable(cableId)}
          className="flex h-11 w-full items-center justify-center gap-1 truncate rounded-t-md border-2 border-b-0 border-ink bg-well px-1 text-sm font-semibold"
        >
          <span className="truncate">{label}</span>
          <Plus aria-hidden className="size-3.5 shrink-0" />
          <span className="sr-only">, cable: change it or add a conductor</span>
        </button>
      )}
    </div>
  );
}

/** Where a lead of the proposed test goes. */
export function ProbeMark({ number }: { number: number }) {
  return (
    <svg aria-hidden="true" viewBox="0 0 20 20" className="absolute top-1 size-5 text-ink">
      <path d="M10 18L4 4h12z" fill="var(--sheet)" stroke="currentColor" strokeWidth="2.4" />
      <text x="10" y="12" textAnchor="middle" fontSize="8" fontWeight="700" fill="currentColor">
        {number}
      </text>
    </svg>
  );
}

/** The installer's flag, else what the readings say; a flag against the evidence is marked. */
export function ColumnMark({
  label,
  said,
  clashes,
}: {
  label: Label | undefined;
  said: SaidRole | undefined;
  clashes: boolean;
}) {
  if (label) {
    const against = said !== undefined && said.grade !== 'guess' && said.role !== label.role;
    return (
      <span className="relative">
        <RoleMark role={label.role} traveler={label.traveler} size={34} />
        {clashes && (
          <span className="absolute -top-2 -left-2 rounded-full border-2 border-stop bg-sheet px-1 text-xs leading-tight font-bold text-stop">
            ✕
          </span>
        )}
        {against && (
          <span className="absolute -top-2 -right-2 rounded-full border-2 border-ink bg-sheet px-1 text-xs leading-tight font-bold">
            ≠
          </span>
        )}
      </span>
    );
  }
  return <RoleMark role={said?.role ?? 'unknown'} size={34} certainty={said?.grade ?? 'labelled'} />;
}

/** Where a conductor leaves its sheath: drawn together at the cable's middle, as they do. */
export function sheath(layout: FanLayout, column: number): number {
  const group = layout.groups.find((entry) => column >= entry.from && column <= entry.to);
  if (!group) return centre(column);
  const middle = (centre(group.from) + centre(group.to)) / 2;
  return middle + (centre(column) - middle) * 0.28;
}

export function ColumnDrawing({
  column,
  x,
  from,
  layout,
  busTop,
  deviceTop,
}: {
  column: FanColumn;
  x: number;
  from: number;
  layout: FanLayout;
  busTop: number;
  deviceTop: number;
}) {
  const { colour } = column.conductor;
  const ys = column.ends.map((end) => {
    const joint = layout.joints.find((entry) => entry.jointId === end.joint);
    if (joint) return busTop + 12 + joint.row * BUS;
    const device = layout.devices.find((entry) => entry.position === end.position);
    return device ? deviceTop + device.row * DEVICE + 10 : busTop + 14;
  });
  if (column.made)
    return (
      <Strand
        d={`M${x} ${Math.min(...ys)}V${Math.max(...ys, Math.min(...ys) + 14)}`}
        colour={colour}
        width={6}
      />
    );
  const [end] = column.ends;
  const bottom = ys[0] ?? busTop - MARKS;
  // The mark hides the strand's middle: it goes on below it.
  return (
    <g>
      <Strand
        d={`M${from} ${CABLE}C${from} ${CABLE + 34} ${x} ${CABLE + 26} ${x} ${CABLE + STRANDS}`}
        colour={colour}
      />
      {end && <Strand d={`M${x} ${busTop - 4}V${bottom}`} colour={colour} width={6} />}
      {end?.capped && (
        <rect
          x={x - 7}
          y={bottom - 3}
          width="14"
          height="14"
          rx="5"
          fill="var(--sheet)"
          stroke="currentColor"
          strokeWidth="1.6"
        />
      )}
      {end?.boxScrew && (
        <g>
          <path
            d={`M${x - 10} ${bottom}h20M${x - 7} ${bottom + 5}h14M${x - 4} ${bottom + 10}h8`}
            stroke="currentColor"
            strokeWidth="2"
          />
        </g>
      )}
      {!end && (
        <path
          d={`M${x - 8} ${busTop - MARKS + 6}q8 16 16 0`}
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
        />
      )}
    </g>
  );
}
