import { type Box, COLOUR_WORDS, type Label, labelsOf, type Words, wireSizeText } from '@inventario/core';
import { classes } from '../ui/classes.js';
import { type FanColumn, type FanLayout, fanLayout } from './fan-layout.js';
import {
  BUS,
  CABLE,
  CableHead,
  COLUMN,
  ColumnDrawing,
  ColumnMark,
  centre,
  DEVICE,
  DeviceDrawing,
  JointDrawing,
  MARKS,
  ProbeMark,
  type SaidRole,
  STRANDS,
  sheath,
} from './fan-parts.js';

interface FanProps {
  box: Box;
  words: Words;
  /** What the readings say, by conductor; absent while it is worked out. */
  said?: ReadonlyMap<string, SaidRole>;
  /** Conductors whose labels cannot stand beside what they are joined with. */
  clashing?: ReadonlySet<string>;
  /** Conductors the next test reads, where the instrument goes. */
  probes?: readonly string[];
  /** The conductor in hand. */
  held: string | null;
  onHold: (conductorId: string) => void;
  /** Opens a cable's menu: its name, one more conductor, taking it out. */
  onCable: (cableId: string) => void;
}

const NONE: ReadonlySet<string> = new Set();

/**
 * Every conductor in its real colour from its cable to where it ends; each is a button, and says in words
 * what the drawing shows.
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
}: FanProps) {
  const layout = fanLayout(box);
  const labels = labelsOf(box);
  const busTop = CABLE + STRANDS + MARKS;
  const deviceTop = busTop + 12 + layout.joints.length * BUS;
  const height = deviceTop + layout.devices.length * DEVICE + 8;
  const width = Math.max(1, ...layout.groups.map((group) => group.to + 1)) * COLUMN;
  const nameOf = (index: number) => {
    const position = box.positions.find((entry) => entry.index === index);
    return position ? words.existing[position.existing] : '';
  };
  const isClashing = (at: number) => {
    const id = layout.columns.find((column) => column.at === at)?.conductor.id;
    return id !== undefined && clashing.has(id);
  };

  return (
    <div className="overflow-x-auto pb-1">
      <div className="relative" style={{ width, height }}>
        <svg
          aria-hidden="true"
          width={width}
          height={height}
          className="absolute inset-0 text-ink"
          style={{ fontFamily: 'var(--font-sans)' }}
        >
          {layout.columns.map((column) => (
            <ColumnDrawing
              key={column.conductor.id}
              column={column}
              x={centre(column.at)}
              layout={layout}
              busTop={busTop}
              deviceTop={deviceTop}
              from={sheath(layout, column.at)}
            />
          ))}
          {layout.joints.map((joint) => (
            <JointDrawing
              key={joint.jointId}
              joint={joint}
              y={busTop + 12 + joint.row * BUS}
              clashes={joint.members.some(isClashing)}
            />
          ))}
          {layout.devices.map((device) => (
            <DeviceDrawing
              key={device.position}
              device={device}
              y={deviceTop + device.row * DEVICE}
              name={nameOf(device.position)}
            />
          ))}
        </svg>

        {layout.groups.map((group) => (
          <CableHead key={group.cableId ?? 'made'} group={group} onCable={onCable} />
        ))}

        {layout.columns.map((column) => {
          const { id } = column.conductor;
          const label = labels.get(id);
          const clashes = clashing.has(id);
          const clash = clashes ? ', which cannot stand beside what it is joined with' : '';
          return (
            <button
              key={id}
              type="button"
              aria-pressed={held === id}
              aria-label={inWords(column, label, words, layout, said?.get(id)) + clash}
              data-conductor={id}
              onClick={() => onHold(id)}
              className={classes(
                'absolute flex scroll-mb-64 items-end justify-center rounded-md pb-1 lg:scroll-mb-44',
                held === id ? 'border-2 border-ink bg-ink/10' : 'border border-transparent hover:bg-ink/5',
              )}
              style={{ left: column.at * COLUMN + 1, top: CABLE, width: COLUMN - 2, height: STRANDS + MARKS }}
            >
              {probes.includes(id) && <ProbeMark number={probes.indexOf(id) + 1} />}
              {column.made ? (
                <span className="mb-1 text-xs text-soft">tail</span>
              ) : (
                <ColumnMark label={label} said={said?.get(id)} clashes={clashes} />
              )}
            </button>
          );
        })}
      </div>
    </div>
  );
}

/** `black, 14 AWG, on terminal a of position 1: line`. The drawing in words. */
export function inWords(
  column: FanColumn,
  label: Label | undefined,
  words: Words,
  layout: FanLayout,
  said?: SaidRole,
): string {
  const { conductor } = column;
  const ends = column.ends.map((end) => {
    const joint = layout.joints.find((entry) => entry.jointId === end.joint);
    if (joint) return `in joint ${joint.number}`;
    if (end.position !== undefined) return `on terminal ${end.terminal} of position ${end.position}`;
    return end.boxScrew ? 'on the box' : 'capped';
  });
  const where = ends.length > 0 ? ends.join(' and ') : 'passes through';
  const told = label
    ? words.roles[label.role]
    : said && said.grade !== 'guess'
      ? `${words.roles[said.role]}, ${said.grade} by readings`
      : words.roles.unknown;
  const against =
    label && said && said.grade !== 'guess' && said.role !== label.role
      ? `, against the readings, which say ${words.roles[said.role]}`
      : '';
  const role = column.made ? 'made here' : `${told}${against}`;
  return `${COLOUR_WORDS[conductor.colour]}, ${wireSizeText(conductor.size)}, ${where}: ${role}`;
}
