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
  type Role,
  withGangs,
} from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { shown } from '../test-support/by-hand.js';
import { BoxDrawing } from './box-drawing.js';
import { boxGeometry } from './box-geometry.js';
import { ConductorFan } from './conductor-fan.js';
import { fanLayout } from './fan-layout.js';
import { BOARD, DARK, INSULATION } from './insulation.js';
import { RoleMark } from './role-mark.js';

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
      const layout = fanLayout(box, new Map());
      expect(layout.columns.map((column) => column.conductor.id).sort()).toEqual(
        box.conductors.map((conductor) => conductor.id).sort(),
      );
      const drawn =
        layout.joints.reduce((sum, joint) => sum + joint.members.length, 0) +
        layout.devices.reduce((sum, device) => sum + device.screws.filter(({ free }) => !free).length, 0);
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
    const layout = fanLayout({ ...box, cables: [...box.cables, { id: 'empty' }] }, new Map());
    const groups = layout.groups;
    groups.slice(1).forEach((group, index) => {
      expect(group.from).toBeGreaterThan(groups[index]?.to ?? -1);
    });
    expect(groups.map(({ letter }) => letter)).toEqual(['A', 'B', 'C', 'D', '']);
    expect(new Set(layout.columns.map((column) => column.at)).size).toBe(layout.columns.length);
  });

  test('free terminals stand beside those in use, none on a column of its own device', () => {
    const { box } = boxOf('us', 'power-at-switch');
    const [device] = fanLayout(box, new Map()).devices;
    expect(device?.screws.map(({ terminal, free }) => [terminal, free])).toEqual([
      ['a', false],
      ['ground', true],
      ['b', false],
    ]);
    const at = device?.screws.map(({ column }) => column) ?? [];
    expect(new Set(at).size).toBe(at.length);
  });

  test('a jumper on one device has a column for each of its ends', () => {
    const { box } = boxOf('us', 'power-at-switch');
    const jumper = {
      id: 'j',
      size: '14AWG' as const,
      colour: 'black' as const,
      ends: [
        { position: 1, terminal: 'a' },
        { position: 1, terminal: 'b' },
      ],
    };
    const layout = fanLayout({ ...box, conductors: [...box.conductors, jumper] }, new Map());
    const column = layout.columns.find(({ conductor }) => conductor.id === 'j');
    expect(column?.second).toBe((column?.at ?? 0) + 1);
    expect(layout.devices[0]?.screws.filter(({ free }) => !free)).toHaveLength(4);
  });

  test('says each conductor in words and hands it over when touched; one stop of the keyboard', async () => {
    const { job, box } = boxOf('us', 'power-at-switch');
    const [first] = box.conductors;
    const labelled: Box = {
      ...box,
      labels: [{ conductorId: first?.id ?? '', role: 'line', byEye: true }],
    };
    const held: string[] = [];
    await shown(
      { ...job, rooms: [{ id: 'r1', name: 'Hall', floor: 0, order: 1 }], boxes: [labelled] },
      <ConductorFan
        box={labelled}
        words={profileOf({ practice: 'us' }).words}
        held={[]}
        onHold={(id) => held.push(id)}
        onCable={() => {}}
      />,
    );
    const line = screen.getByRole('button', {
      name: 'Black, feed A, first from left, 14 AWG, on terminal a of position 1: line, by eye',
    });
    fireEvent.click(line);
    expect(held).toEqual([first?.id]);
    expect(
      screen.getAllByRole('button', { name: /^White, .*14 AWG, in joint 1: not labelled$/ }),
    ).toHaveLength(2);
    const stops = [...document.querySelectorAll('[data-conductor]')].filter(
      (element) => element.getAttribute('tabindex') === '0',
    );
    expect(stops).toEqual([line]);
  });
});

const SHOWN: Role = 'load';

describe('marks', () => {
  test('my word, proved and likely differ in form, not in shade alone', () => {
    const drawn = (['labelled', 'by-eye', 'confirmed', 'indicated', 'guess'] as const).map((certainty) => {
      const { container, unmount } = render(<RoleMark role={SHOWN} certainty={certainty} />);
      const marks = [...container.querySelectorAll('path')].map((path) => [
        path.getAttribute('fill') === 'currentColor' ? 'filled' : 'open',
        path.getAttribute('stroke-dasharray') === null ? 'whole' : 'dashed',
      ]);
      unmount();
      return JSON.stringify(marks);
    });
    expect(new Set(drawn).size).toBe(drawn.length);
  });

  const luminance = (hex: string) =>
    [1, 3, 5]
      .map((at) => Number.parseInt(hex.slice(at, at + 2), 16) / 255)
      .map((part) => (part <= 0.03928 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4))
      .reduce((sum, part, at) => sum + part * ([0.2126, 0.7152, 0.0722][at] ?? 0), 0);
  const contrast = (one: string, other: string) => {
    const [light = 0, dark = 0] = [luminance(one), luminance(other)].sort((a, b) => b - a);
    return (light + 0.05) / (dark + 0.05);
  };

  test.each(Object.entries(INSULATION))('%s: its code is read on it', (_, { fill, ink }) => {
    expect(contrast(fill, ink)).toBeGreaterThanOrEqual(4.5);
  });

  test('black and white both stand out from the board by 3:1, and so does its writing by 4.5:1', () => {
    expect(contrast(INSULATION.black.fill, BOARD)).toBeGreaterThanOrEqual(3);
    expect(contrast(INSULATION.white.fill, BOARD)).toBeGreaterThanOrEqual(3);
    expect(contrast(DARK, BOARD)).toBeGreaterThanOrEqual(4.5);
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
