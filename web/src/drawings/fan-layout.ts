import type { At, Box, Conductor } from '@inventario/core';

/**
 * The conductors of a box fanned out, in columns. Cables above, joints as buses, terminals of the devices
 * below:
 *
 *     [ feed        ] [ lamp        ] [made here]      cables
 *       |    |    |     |    |    |                    strands with their role marks
 *       |    o====|=====|====o    |        |           joint 1, a bus with a dot for each member
 *       |         o=====|=========o        |           joint 2
 *      [a]             [b]                             terminals of position 1
 */
export interface FanLayout {
  columns: FanColumn[];
  groups: { cableId: string | null; label: string; from: number; to: number }[];
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
  /** One row a position with its terminals; `screws` name the columns that end on each. */
  devices: {
    position: number;
    row: number;
    from: number;
    to: number;
    screws: { terminal: string; column: number }[];
  }[];
}

export interface FanColumn {
  conductor: Conductor;
  /** Its column, counted from the left; a cable without conductors leaves one free. */
  at: number;
  /** Where it goes from its cable; a piece made in the box has two ends, one that passes through has none. */
  ends: At[];
  made: boolean;
}

export function fanLayout(box: Box): FanLayout {
  const columns: FanColumn[] = [];
  const groups: FanLayout['groups'] = [];
  const add = (cableId: string | null, label: string, conductors: Conductor[]) => {
    if (conductors.length === 0 && cableId === null) return;
    const from = (groups.at(-1)?.to ?? -1) + 1;
    conductors.forEach((conductor, index) => {
      columns.push({
        conductor,
        at: from + index,
        ends: conductor.ends ?? (conductor.at ? [conductor.at] : []),
        made: cableId === null,
      });
    });
    // A cable nobody has listed a conductor of yet still takes a column, so that it can be seen and filled.
    groups.push({ cableId, label, from, to: Math.max(from, from + conductors.length - 1) });
  };
  box.cables.forEach((cable, index) => {
    add(
      cable.id,
      cable.label ?? `cable ${index + 1}`,
      box.conductors.filter((conductor) => conductor.cableId === cable.id),
    );
  });
  add(
    null,
    'made here',
    box.conductors.filter((conductor) => conductor.cableId === undefined),
  );

  const joints: FanLayout['joints'] = [];
  box.joints.forEach((joint, index) => {
    const members = columns.flatMap((column) =>
      column.ends.some((end) => end.joint === joint.id) ? [column.at] : [],
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
  const devices = box.positions
    .map((position) => {
      const screws = columns.flatMap((column) =>
        column.ends
          .filter((end) => end.position === position.index)
          .map((end) => ({ terminal: end.terminal ?? '', column: column.at })),
      );
      const taken = screws.map((screw) => screw.column);
      return { position: position.index, screws, from: Math.min(...taken), to: Math.max(...taken) };
    })
    .filter((device) => device.screws.length > 0)
    .map((device, row) => ({ ...device, row }));
  return { columns, groups, joints, devices };
}
