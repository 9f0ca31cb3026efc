import {
  type At,
  type Box,
  type Conductor,
  cableNames,
  conductorsInOrder,
  existingTerminals,
  type JobLookup,
} from '@inventario/core';

/**
 * The conductors of a box fanned out, in columns. Cables above, joints as connectors, terminals of the
 * devices below:
 *
 *     [ A feed      ] [ B           ] [made here]      cables
 *       |    |    |     |    |    |                    strands with their role marks
 *       |   (o====|=====|====o)   |        |           joint 1, a connector over its members
 *       |        (o=====|=========o)       |           joint 2
 *      [a]             [b]        ground               terminals of position 1, free ones too
 */
export interface FanLayout {
  columns: FanColumn[];
  groups: { cableId: string | null; letter: string; word: string; from: number; to: number }[];
  /** `row` counts from the top; `from` and `to` are columns. */
  joints: {
    jointId: string;
    number: number;
    connector: string;
    row: number;
    from: number;
    to: number;
    members: number[];
  }[];
  /** One row a position with its terminals; `screws` name the column each stands in. */
  devices: {
    position: number;
    row: number;
    from: number;
    to: number;
    screws: { terminal: string; column: number; free: boolean }[];
  }[];
  /** Columns in all, free terminals counted. */
  width: number;
}

export interface FanColumn {
  conductor: Conductor;
  /** Its column, counted from the left; a cable without conductors leaves one free. */
  at: number;
  /** The column of its second end, where it goes from one place to another of the same row. */
  second: number | null;
  /** Where it goes from its cable; a piece made in the box has two ends, one that passes through has none. */
  ends: At[];
  made: boolean;
}

type Devices = JobLookup['devices'];

export function fanLayout(box: Box, devices: Devices): FanLayout {
  const { columns, groups } = columnsOf(box);
  const joints = jointsOf(box, columns);
  const taken = Math.max(0, ...groups.map((group) => group.to + 1));
  const fitted = devicesOf(box, devices, columns, taken);
  return {
    columns,
    groups,
    joints,
    devices: fitted,
    width: Math.max(1, taken, ...fitted.map(({ to }) => to + 1)),
  };
}

function columnsOf(box: Box): Pick<FanLayout, 'columns' | 'groups'> {
  const columns: FanColumn[] = [];
  const groups: FanLayout['groups'] = [];
  const order = conductorsInOrder(box);
  const add = (cableId: string | null, name: { letter: string; word: string }) => {
    const own = order.filter((conductor) => (conductor.cableId ?? null) === cableId);
    if (own.length === 0 && cableId === null) return;
    const from = (groups.at(-1)?.to ?? -1) + 1;
    let at = from;
    for (const conductor of own) {
      const ends = conductor.ends ?? (conductor.at ? [conductor.at] : []);
      const level = ends.length === 2 && rowKey(ends[0]) === rowKey(ends[1]);
      columns.push({ conductor, at, second: level ? at + 1 : null, ends, made: cableId === null });
      at += level ? 2 : 1;
    }
    // A cable nobody has listed a conductor of yet still takes a column, so that it can be seen and filled.
    groups.push({ cableId, ...name, from, to: Math.max(from, at - 1) });
  };
  for (const { cableId, letter, word } of cableNames(box)) add(cableId, { letter, word });
  add(null, { letter: '', word: 'made here' });
  return { columns, groups };
}

/** Ends in one row of the drawing are in one joint or on one device. */
function rowKey(at: At | undefined): string {
  if (at?.joint !== undefined) return `joint:${at.joint}`;
  if (at?.position !== undefined) return `device:${at.position}`;
  return at?.boxScrew ? 'screw' : 'capped';
}

/** The column that an end of a conductor stands in. */
export function columnOfEnd(column: FanColumn, end: number): number {
  return end === 1 && column.second !== null ? column.second : column.at;
}

function jointsOf(box: Box, columns: readonly FanColumn[]): FanLayout['joints'] {
  const joints: FanLayout['joints'] = [];
  box.joints.forEach((joint, index) => {
    const members = columns.flatMap((column) =>
      column.ends.flatMap((end, which) => (end.joint === joint.id ? [columnOfEnd(column, which)] : [])),
    );
    if (members.length === 0) return;
    joints.push({
      jointId: joint.id,
      number: index + 1,
      connector: joint.connector,
      row: joints.length,
      from: Math.min(...members),
      to: Math.max(...members),
      members,
    });
  });
  return joints;
}

/** Terminals that hold something stand below it; free ones on the right of their device. */
function devicesOf(
  box: Box,
  devices: Devices,
  columns: readonly FanColumn[],
  width: number,
): FanLayout['devices'] {
  let afar = width;
  return box.positions
    .map((position) => {
      const used = columns.flatMap((column) =>
        column.ends.flatMap((end, which) =>
          end.position === position.index
            ? [{ terminal: end.terminal ?? '', column: columnOfEnd(column, which), free: false }]
            : [],
        ),
      );
      const held = new Set(used.map(({ terminal }) => terminal));
      const taken = new Set(used.map(({ column }) => column));
      const start = taken.size > 0 ? Math.min(...taken) : 0;
      const open = Array.from({ length: afar + 8 }, (_, at) => at).filter(
        (at) => at > start && !taken.has(at),
      );
      const free = usualTerminals(position, devices, held)
        .filter((terminal) => !held.has(terminal))
        .map((terminal, at) => ({ terminal, column: open[at] ?? afar + at, free: true }));
      const screws = [...used, ...free].sort((a, b) => a.column - b.column);
      const at = screws.map(({ column }) => column);
      afar = Math.max(afar, ...at);
      return { position: position.index, screws, from: Math.min(...at), to: Math.max(...at) };
    })
    .filter(({ screws }) => screws.length > 0)
    .map((device, row) => ({ ...device, row }));
}

/** Of a dimmer, which comes in two forms, the terminals of the form its conductors show. */
function usualTerminals(
  position: Box['positions'][number],
  devices: Devices,
  held: ReadonlySet<string>,
): string[] {
  const all = existingTerminals(position, devices);
  if (!all.includes('a') || !all.includes('common')) return all;
  const several = held.has('common') || held.has('t1') || held.has('t2');
  return several ? ['common', 't1', 't2', 'ground'] : ['a', 'b', 'ground'];
}
