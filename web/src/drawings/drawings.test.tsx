import {
  type Box,
  contentsAsFound,
  type Job,
  lookup,
  newBox,
  newJob,
  PRESETS,
  type PracticeId,
  presetContents,
  profileOf,
  withGangs,
} from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { BoxDrawing } from './box-drawing.js';
import { boxGeometry } from './box-geometry.js';
import { ConductorFan } from './conductor-fan.js';
import { fanLayout } from './fan-layout.js';

const NOTHING = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
let serial = 0;
const newId = () => `id${++serial}`;

function boxOf(
  practice: PracticeId,
  preset: (typeof PRESETS)[number]['id'] = 'feed-through',
): { job: Job; box: Box } {
  const box = {
    ...newBox({ id: 'b1', roomId: 'r1', name: 'Hall', order: 1 }, practice),
    ...presetContents({ preset, practice, size: '14AWG' }, newId),
  };
  return { job: { ...newJob('j', 'Job', practice, undefined, NOTHING), boxes: [box] }, box };
}

describe('the fan', () => {
  test.each(PRESETS.map((preset) => preset.id))(
    '%s: every conductor has a column, every end is drawn',
    (preset) => {
      const { box } = boxOf('us', preset);
      const layout = fanLayout(box);
      expect(layout.columns.map((column) => column.conductor.id).sort()).toEqual(
        box.conductors.map((conductor) => conductor.id).sort(),
      );
      const drawn =
        layout.joints.reduce((sum, joint) => sum + joint.members.length, 0) +
        layout.devices.reduce((sum, device) => sum + device.screws.length, 0);
      const ends = layout.columns
        .flatMap((column) => column.ends)
        .filter((end) => end.joint !== undefined || end.position !== undefined).length;
      expect(drawn).toBe(ends);
      for (const joint of layout.joints)
        expect([joint.from, joint.to]).toEqual([Math.min(...joint.members), Math.max(...joint.members)]);
    },
  );

  test('groups stand side by side without overlap, an empty cable among them', () => {
    const { box } = boxOf('us');
    const layout = fanLayout({ ...box, cables: [...box.cables, { id: 'empty' }] });
    const groups = layout.groups;
    groups.slice(1).forEach((group, index) => {
      expect(group.from).toBeGreaterThan(groups[index]?.to ?? -1);
    });
    expect(groups.map((group) => group.label)).toContain('cable 4');
    expect(new Set(layout.columns.map((column) => column.at)).size).toBe(layout.columns.length);
  });

  test('says each conductor in words and hands it over when touched', () => {
    const { box } = boxOf('us', 'power-at-switch');
    const labelled: Box = { ...box, labels: [{ conductorId: box.conductors[0]?.id ?? '', role: 'line' }] };
    const held: string[] = [];
    render(
      <ConductorFan
        box={labelled}
        words={profileOf({ practice: 'us' }).words}
        held={null}
        onHold={(id) => held.push(id)}
        onCable={() => {}}
      />,
    );
    fireEvent.click(screen.getByRole('button', { name: 'black, 14 AWG, on terminal a of position 1: line' }));
    expect(held).toEqual([box.conductors[0]?.id]);
    expect(screen.getAllByRole('button', { name: /white, 14 AWG, in joint 1: not told/ })).toHaveLength(2);
    cleanup();
  });
});

describe('the face and the section', () => {
  test.each<[PracticeId, number]>([
    ['us', 1],
    ['us', 4],
    ['gb', 2],
    ['modular', 6],
  ])('%s, %i: bodies and controls lie inside the face', (practice, gangs) => {
    const { job, box } = boxOf(practice);
    const wide = { ...box, ...withGangs(box, gangs) };
    const { face, bodies, controls } = boxGeometry(
      wide,
      contentsAsFound(wide, lookup({ ...job, boxes: [wide] })),
    );
    for (const body of bodies) {
      expect(body.x).toBeGreaterThanOrEqual(face.x - 6);
      expect(body.x + body.width).toBeLessThanOrEqual(face.width + 6);
    }
    for (const control of controls) {
      expect(control.x).toBeGreaterThan(0);
      expect(control.x).toBeLessThan(face.width);
    }
    expect(new Set(controls.map((control) => control.x)).size).toBe(controls.length);
  });

  test('what reaches further than the box is said in words', () => {
    const { job, box } = boxOf('us');
    const shallow: Box = {
      ...box,
      enclosure: { ...box.enclosure, depth: 20, rings: [{ mL: 50, depth: 5 }], setBack: 2 },
    };
    const geometry = boxGeometry(shallow, contentsAsFound(shallow, lookup(job)));
    expect(geometry.section).toMatchObject({
      setBack: 2,
      rings: [5],
      depth: 20,
      body: 25,
      clearance: 6,
      deepest: 1,
    });
    render(<BoxDrawing geometry={geometry} units="metric" planned={false} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toContain(
      'Depth behind the finished face 27 mm. As found the deepest body takes 25 mm and its conductors 6 mm, which is more than there is.',
    );
    cleanup();
  });
});
