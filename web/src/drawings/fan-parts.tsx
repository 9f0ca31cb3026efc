import type { Label, Role } from '@inventario/core';
import { MoreVertical } from 'lucide-react';
import type { FanColumn, FanLayout } from './fan-layout.js';
import { BUS, CABLE, DEVICE, type FanMetrics, STRANDS } from './fan-metrics.js';
import { certaintyOf, RoleMark } from './role-mark.js';
import { Collar, Strand } from './strand.js';

/** What the readings make of a conductor, or another box like this one had it. */
export interface SaidRole {
  role: Role;
  grade: 'guess' | 'indicated' | 'confirmed';
  traveler?: number | undefined;
}

/** A connector over the ends of its members: hatched, with its number. */
export function JointDrawing({
  joint,
  metrics,
  clashes,
}: {
  joint: FanLayout['joints'][number];
  metrics: FanMetrics;
  clashes: boolean;
}) {
  const y = metrics.jointY(joint.row);
  const [from, to] = [metrics.centre(joint.from) - 15, metrics.centre(joint.to) + 15];
  return (
    <g>
      <rect
        x={from}
        y={y - 10}
        width={to - from}
        height="20"
        rx="10"
        fill="var(--joint)"
        stroke={clashes ? 'var(--stop)' : 'var(--joint)'}
        strokeWidth={clashes ? 4 : 1}
      />
      <rect x={from} y={y - 10} width={to - from} height="20" rx="10" fill="url(#connector)" />
      <text
        x={metrics.centre(joint.from) + metrics.column / 2}
        y={y + 5}
        textAnchor="middle"
        fontSize="15"
        fontWeight="700"
        fill="var(--onjoint)"
        paintOrder="stroke"
        stroke="var(--joint)"
        strokeWidth="5"
      >
        {joint.number}
      </text>
    </g>
  );
}

/** The hatching of connectors, by the name it is filled with. */
export function ConnectorHatching({ id }: { id: string }) {
  return (
    <defs>
      <pattern id={id} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="7" stroke="#5d666c" strokeWidth="2" />
      </pattern>
    </defs>
  );
}

/** What is written beside a screw, where the name of its terminal is too long for it. */
const SCREW_WORDS: Readonly<Record<string, string>> = {
  common: 'com',
  ground: 'gnd',
  neutral: 'N',
  neutral2: 'N2',
  hot: 'hot',
};

export function DeviceDrawing({
  device,
  metrics,
  name,
}: {
  device: FanLayout['devices'][number];
  metrics: FanMetrics;
  name: string;
}) {
  const y = metrics.screwY(device.row);
  const x = metrics.centre(device.from) - 21;
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={metrics.centre(device.to) - metrics.centre(device.from) + 42}
        height={DEVICE - 12}
        rx="5"
        fill="var(--well)"
        stroke="currentColor"
        strokeWidth="1.4"
      />
      {device.screws.map((screw) => (
        <g key={`${screw.terminal}${screw.column}`}>
          <circle
            cx={metrics.centre(screw.column)}
            cy={y}
            r="7"
            fill={screw.free ? 'var(--board)' : 'var(--sheet)'}
            stroke="currentColor"
            strokeWidth="1.6"
            strokeDasharray={screw.free ? '3 2' : undefined}
          />
          {!screw.free && (
            <path d={`M${metrics.centre(screw.column) - 4} ${y}h8`} stroke="currentColor" strokeWidth="1.8" />
          )}
          <text
            x={metrics.centre(screw.column)}
            y={y + 21}
            textAnchor="middle"
            fontSize="14"
            fontWeight="600"
            fill="currentColor"
          >
            {SCREW_WORDS[screw.terminal] ?? screw.terminal}
          </text>
        </g>
      ))}
      <text x={x + 6} y={y + 37} fontSize="14" fill="currentColor">
        {device.position} {name}
      </text>
    </g>
  );
}

export function CableHead({
  group,
  metrics,
  says,
  onCable,
}: {
  group: FanLayout['groups'][number];
  metrics: FanMetrics;
  /** `feed A, breaker 7`. */
  says: string;
  onCable: (cableId: string) => void;
}) {
  const { cableId, from, to, letter, word } = group;
  const style = { left: from * metrics.column + 2, width: (to - from + 1) * metrics.column - 4 };
  if (cableId === null)
    return (
      <div
        className="absolute top-0 flex h-11 items-center justify-center text-center text-sm leading-none"
        style={style}
      >
        {word}
      </div>
    );
  return (
    <button
      type="button"
      onClick={() => onCable(cableId)}
      style={style}
      className="absolute top-0 flex h-11 items-center justify-center gap-1 rounded-t-lg border-2 border-b-0 border-ink bg-well px-1 text-sm font-semibold"
    >
      {letter && <span className="text-lg font-bold">{letter}</span>}
      <span className="truncate">{word}</span>
      <MoreVertical aria-hidden className="size-4 shrink-0" />
      <span className="sr-only">{says}: change it or add a conductor</span>
    </button>
  );
}

/** Where a lead of the proposed test goes. */
export function ProbeMark({ number }: { number: number }) {
  return (
    <svg aria-hidden="true" viewBox="0 0 30 30" className="absolute -top-2 -right-1 size-7.5 text-ink">
      <path d="M15 28L3 4h24z" fill="var(--sheet)" stroke="currentColor" strokeWidth="2" />
      <text x="15" y="17" textAnchor="middle" fontSize="14" fontWeight="700" fill="currentColor">
        {number}
      </text>
    </svg>
  );
}

/** The installer's label, else what the readings say; a label against the evidence is marked. */
export function ColumnMark({
  label,
  said,
  clashes,
}: {
  label: Label | undefined;
  said: SaidRole | undefined;
  clashes: boolean;
}) {
  const badge = (text: string, stop: boolean) => (
    <span
      className={
        stop
          ? 'absolute -top-2 -left-2 rounded-full border-2 border-stop bg-sheet px-1 text-sm leading-tight font-bold text-stop'
          : 'absolute -top-2 -right-2 rounded-full border-2 border-ink bg-sheet px-1 text-sm leading-tight font-bold'
      }
    >
      {text}
    </span>
  );
  if (!label || label.role === 'unknown')
    return (
      <RoleMark
        role={said?.role ?? 'unknown'}
        traveler={said?.traveler}
        size={34}
        certainty={said?.grade ?? 'guess'}
      />
    );
  const against = said !== undefined && said.grade !== 'guess' && said.role !== label.role;
  return (
    <span className="relative">
      <RoleMark role={label.role} traveler={label.traveler} size={34} certainty={certaintyOf(label)} />
      {clashes && badge('✕', true)}
      {against && badge('≠', false)}
    </span>
  );
}

/** The upper part of a conductor: from its sheath to its mark. */
export function SheathDrawing({ column, metrics }: { column: FanColumn; metrics: FanMetrics }) {
  if (column.made) return null;
  const [from, x] = [metrics.sheath(column.at), metrics.centre(column.at)];
  const { colour } = column.conductor;
  return (
    <g>
      <Strand
        d={`M${from} ${CABLE}c0 24 ${x - from} 14 ${x - from} 34V${CABLE + STRANDS + 4}`}
        colour={colour}
      />
      <Collar x={x} y={CABLE + 42} colour={colour} />
    </g>
  );
}

/** The lower part: from below its mark to where it ends. It passes in front of what it is not part of. */
export function EndDrawing({ column, metrics }: { column: FanColumn; metrics: FanMetrics }) {
  const { colour } = column.conductor;
  const x = metrics.centre(column.at);
  const first = metrics.endAt(column, 0);
  const second = metrics.endAt(column, 1);
  if (column.made) {
    const top = Math.min(first.y, second.y);
    const d =
      column.second === null
        ? `M${x} ${top}V${Math.max(first.y, second.y, top + 14)}`
        : `M${first.x} ${first.y}V${top - BUS + 6}H${second.x}V${second.y}`;
    return (
      <g key={d} className="settle">
        <Strand d={d} colour={colour} width={7} clear />
        <Collar
          x={(first.x + second.x) / 2}
          y={column.second === null ? top + 12 : top - BUS + 6}
          colour={colour}
        />
      </g>
    );
  }
  const [end] = column.ends;
  const bottom = end ? first.y : metrics.busTop - 24;
  return (
    <g key={`${x} ${bottom}`} className="settle">
      {end && (
        <Strand d={`M${x} ${metrics.busTop - 4}V${bottom}`} colour={colour} width={7} clear={!end.capped} />
      )}
      {end?.capped && (
        <path
          d={`M${x - 9} ${bottom - 6}h18v6a9 9 0 0 1 -18 0z`}
          fill="var(--joint)"
          stroke="currentColor"
          strokeWidth="1.4"
        />
      )}
      {end?.boxScrew && (
        <path
          d={`M${x - 11} ${bottom + 2}h22M${x - 7} ${bottom + 8}h14M${x - 4} ${bottom + 14}h8`}
          stroke="currentColor"
          strokeWidth="2.4"
        />
      )}
      {!end && (
        <path d={`M${x - 9} ${bottom}q9 18 18 0`} fill="none" stroke="currentColor" strokeWidth="2.4" />
      )}
    </g>
  );
}
