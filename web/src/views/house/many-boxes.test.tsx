import '@testing-library/jest-dom/jest-globals';
import type { Box, Job } from '@inventario/core';
import { expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { dialog, pickListed, press, shown } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { HouseView } from './house.js';

function threeBoxes(): Job {
  const job = exampleJob('pantry');
  const [box] = job.boxes as [Box];
  const copy = (id: string): Box => ({
    ...box,
    id,
    name: `Entry, ${id}`,
    cables: [],
    conductors: [],
    joints: [],
    readings: [],
    labels: [],
    enclosure: { ...box.enclosure, material: 'plastic', grounded: false, depth: 0 },
  });
  return { ...job, boxes: [box, copy('two'), copy('three')] };
}

test('several boxes are set alike in one edit, and one step back', async () => {
  const job = threeBoxes();
  const { job: now, undo } = await shown(job, <HouseView />);
  press('Edit several boxes');
  const said = await dialog();
  expect(within(said).getByRole('button', { name: 'Choose boxes, and what to set' })).toBeDisabled();
  fireEvent.click(within(said).getByRole('checkbox', { name: 'Entry, two' }));
  fireEvent.click(within(said).getByRole('checkbox', { name: 'Entry, three' }));
  await pickListed(/^Material/, 'metal, bonded', said);
  await pickListed(/^Plate/, 'metal', said);
  press('Set it in 2 boxes', said);
  for (const id of ['two', 'three'])
    expect(now().boxes.find((box) => box.id === id)?.enclosure).toMatchObject({
      material: 'metal',
      grounded: true,
      plate: 'metal',
      depth: 0,
    });
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  undo();
  expect(now().boxes.find((box) => box.id === 'two')?.enclosure).toMatchObject({ material: 'plastic' });
});

test('a whole room is one tick; what is so already takes no part', async () => {
  const job = threeBoxes();
  const { job: now } = await shown(job, <HouseView />);
  press('Edit several boxes');
  const said = await dialog();
  fireEvent.click(within(said).getByRole('checkbox', { name: `all of ${job.rooms[0]?.name}` }));
  await pickListed(/^Fed by/, new RegExp(`^${job.circuits[0]?.breaker}`), said);
  const already = job.boxes.filter(({ circuitIds }) => circuitIds[0] === job.circuits[0]?.id).length;
  const left = 3 - already;
  if (left > 0) press(new RegExp(`^Set it in ${left}`), said);
  expect(now().boxes.every(({ circuitIds }) => circuitIds[0] === job.circuits[0]?.id)).toBe(true);
});
