import { type Box, cableWords, labelsOf, type Words } from '@inventario/core';
import { useRef } from 'react';
import { useJob } from '../data/job-context.js';
import { classes } from '../ui/classes.js';
import { useWidth } from '../ui/use-width.js';
import { inWords } from './conductor-words.js';
import { type FanColumn, fanLayout } from './fan-layout.js';
import { CABLE, FanMetrics, MARKS, STRANDS } from './fan-metrics.js';
import {
  CableHead,
  ColumnMark,
  ConnectorHatching,
  DeviceDrawing,
  EndDrawing,
  JointDrawing,
  ProbeMark,
  type SaidRole,
  SheathDrawing,
} from './fan-parts.js';
import { type EndTouch, MovingEnds } from './moving-ends.js';

interface FanProps {
  box: Box;
  words: Words;
  /** What the readings say, by conductor; absent while it is worked out. */
  said?: ReadonlyMap<string, SaidRole>;
  /** Conductors whose labels cannot stand beside what they are joined with. */
  clashing?: ReadonlySet<string>;
  /** Conductors the next test reads, where the instrument goes. */
  probes?: readonly string[];
  /** The conductors in hand. */
  held: readonly string[];
  onHold: (conductorId: string) => void;
  /** Opens a cable's menu: its name, one more conductor, taking it out. */
  onCable: (cableId: string) => void;
  /** Ends are moved instead of conductors held. */
  moving?: EndTouch | undefined;
}

const NONE: ReadonlySet<string> = new Set();

/**
 * Every conductor in its real colour from its cable to where it ends, on a board of one mid tone; each is a
 * button, and says in words what the drawing shows.
 */
export function ConductorFan({
  box,
  words,
  said,
  clashing = NONE,
  probes = [],
  held,
  onHold,
  onCable,
  moving,
}: FanProps) {
  const { job, known } = useJob();
  const place = useRef<HTMLDivElement>(null);
  const room = useWidth(place);
  const layout = fanLayout(box, known.devices);
  const metrics = new FanMetrics(layout, room, moving !== undefined);
  const labels = labelsOf(box);
  const isClashing = (at: number) => {
    const id = layout.columns.find((column) => column.at === at)?.conductor.id;
    return id !== undefined && clashing.has(id);
  };
  return (
    <div ref={place} className="board overflow-x-auto rounded-lg">
      <div className="relative mx-auto" style={{ width: metrics.width, height: metrics.height }}>
        <FanPicture box={box} words={words} metrics={metrics} held={held} isClashing={isClashing} />
        {layout.groups.map((group) => (
          <CableHead
            key={group.cableId ?? 'made'}
            group={group}
            metrics={metrics}
            says={group.cableId === null ? '' : cableWords(box, group.cableId, job)}
            onCable={onCable}
          />
        ))}
        {layout.columns.map((column, at) => {
          const { id } = column.conductor;
          const label = labels.get(id);
          const clashes = clashing.has(id);
          const clash = clashes ? ', which cannot stand beside what it is joined with' : '';
          const isHeld = held.includes(id);
          // The whole fan is one stop of the keyboard: arrows go from conductor to conductor.
          const isStop = held.length > 0 ? held[0] === id : at === 0;
          return (
            <button
              key={id}
              type="button"
              tabIndex={isStop ? 0 : -1}
              aria-pressed={isHeld}
              aria-label={inWords(column, label, said?.get(id), { box, job, words, layout }) + clash}
              data-conductor={id}
              onClick={() => onHold(id)}
              className={classes(
                'absolute flex items-end justify-center rounded-md pb-1',
                isHeld ? 'outline-3 -outline-offset-2 outline-ink' : 'hover:bg-lit/40',
              )}
              style={{
                left: column.at * metrics.column + 1,
                top: CABLE,
                width: metrics.column - 2,
                height: STRANDS + MARKS,
              }}
            >
              {probes.includes(id) && <ProbeMark number={probes.indexOf(id) + 1} />}
              {column.made ? (
                <span className="mb-1 text-sm">pigtail</span>
              ) : (
                <ColumnMark label={label} said={said?.get(id)} clashes={clashes} />
              )}
            </button>
          );
        })}
        {moving && <MovingEnds box={box} layout={layout} metrics={metrics} touch={moving} />}
      </div>
    </div>
  );
}

/**
 * What is drawn, back to front: what is in hand, ends of joints under their connectors, the rest over them.
 */
function FanPicture({
  box,
  words,
  metrics,
  held,
  isClashing,
}: {
  box: Box;
  words: Words;
  metrics: FanMetrics;
  held: readonly string[];
  isClashing: (at: number) => boolean;
}) {
  const { layout } = metrics;
  const rowOf = (column: FanColumn) =>
    Math.max(
      -1,
      ...column.ends.map((end) =>
        end.position !== undefined
          ? layout.joints.length
          : (layout.joints.find(({ jointId }) => jointId === end.joint)?.row ?? -1),
      ),
    );
  const endsOf = (row: number) =>
    layout.columns
      .filter((column) => rowOf(column) === row)
      .map((column) => <EndDrawing key={column.conductor.id} column={column} metrics={metrics} />);
  const nameOf = (index: number) => {
    const position = box.positions.find((entry) => entry.index === index);
    return position ? words.existing[position.existing] : '';
  };
  return (
    <svg
      aria-hidden="true"
      width={metrics.width}
      height={metrics.height}
      className="absolute inset-0"
      style={{ fontFamily: 'var(--font-sans)' }}
    >
      <ConnectorHatching id="connector" />
      {layout.columns
        .filter(({ conductor }) => held.includes(conductor.id))
        .map(({ at, conductor }) => (
          <rect
            key={conductor.id}
            x={at * metrics.column + 1}
            y={CABLE}
            width={metrics.column - 2}
            height={metrics.height - CABLE - 4}
            rx="6"
            fill="var(--lit)"
          />
        ))}
      {layout.columns.map((column) => (
        <SheathDrawing key={column.conductor.id} column={column} metrics={metrics} />
      ))}
      {endsOf(-1)}
      {layout.joints.map((joint) => (
        <g key={joint.jointId}>
          {endsOf(joint.row)}
          <JointDrawing joint={joint} metrics={metrics} clashes={joint.members.some(isClashing)} />
        </g>
      ))}
      {layout.devices.map((device) => (
        <DeviceDrawing
          key={device.position}
          device={device}
          metrics={metrics}
          name={nameOf(device.position)}
        />
      ))}
      {endsOf(layout.joints.length)}
    </svg>
  );
}
