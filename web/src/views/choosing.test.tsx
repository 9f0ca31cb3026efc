import '@testing-library/jest-dom/jest-globals';
import type { Job } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { press, shown } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { BriefView } from './brief/brief.js';
import { CatalogueView } from './catalogue/catalogue.js';
import { ChooseView } from './choose/choose.js';
import { MaterialsView } from './materials/materials.js';
import { PlansView } from './plans/plans.js';

describe('the brief', () => {
  test('an answer is written down, counts as asked, and says what is left', async () => {
    const job = exampleJob('shed');
    job.brief = {};
    const { job: now } = await shown(job, <BriefView />);
    const radios = screen.getByRole('region', { name: 'How it may talk' });
    expect(within(radios).getByText('not asked yet')).toBeInTheDocument();
    press(/^mesh/, radios);
    expect(now().brief?.radios).toEqual(['mesh']);
    expect(within(radios).queryByText('not asked yet')).toBeNull();
    // Of the two devices only one is on the mesh.
    expect(screen.getByText('left by the musts').nextElementSibling).toHaveTextContent('1');
  });

  test('the usual is set for what nobody asked, in the brief and place by place', async () => {
    const job = exampleJob('shed');
    job.brief = { colour: 'black' };
    for (const position of job.boxes[0]?.positions ?? []) position.need = { smart: true };
    const { job: now } = await shown(job, <BriefView />);
    press(/^Set the usual for/);
    expect(now().brief).toMatchObject({ colour: 'black', feel: { onLevel: 'last' }, trialFirst: true });
    press(/^Set the usual where/);
    expect(now().boxes[0]?.positions.map((position) => position.need?.dim)).toEqual(['nice', 'nice']);
  });

  test('a place is asked for what goes with it, and for more on demand', async () => {
    const job = exampleJob('pantry');
    const { job: now } = await shown(job, <BriefView />);
    const place = screen.getByRole('group', { name: job.boxes[0]?.name as string });
    expect(within(place).queryByRole('button', { name: 'scenes' })).toBeNull();
    press(/^more/, place);
    press('scenes', place);
    press('no dimming', place);
    expect(now().boxes[0]?.positions[0]?.need).toMatchObject({ scenes: true, dim: 'nice' });
    press('smart', place);
    expect(now().boxes[0]?.positions[0]?.need?.smart).toBe(false);
  });
});

describe('a place', () => {
  const choose = (job: Job) =>
    shown(job, <ChooseView />, '/box/shed/choose/2', '/box/:boxId/choose/:position');

  test('a device that is stopped is chosen only with a reason, which stays with the choice', async () => {
    const { job: now } = await choose(exampleJob('shed'));
    await waitFor(() => expect(screen.getByText(/^Of 2 devices/)).toBeInTheDocument());
    fireEvent.click(screen.getByRole('radio', { name: /^All, with/ }));
    press('Choose all the same');
    const dialog = await screen.findByRole('dialog');
    expect(dialog).toHaveTextContent('720 W on a rating of 500 W');
    press('Choose it all the same', dialog);
    expect(await within(dialog).findByRole('alert')).toHaveTextContent('Say why');
    fireEvent.change(within(dialog).getByLabelText('Why'), {
      target: { value: 'half the lamps go next week' },
    });
    press('Choose it all the same', dialog);
    await waitFor(() =>
      expect(now().selections[1]).toMatchObject({
        deviceId: 'pw-15',
        against: 'half the lamps go next week',
      }),
    );
    expect(await screen.findByText(/Chosen against advice: half the lamps/)).toBeInTheDocument();
  });

  test('what is not proved says what settles it, and leads there', async () => {
    const job = exampleJob('shed');
    const [box] = job.boxes;
    if (box) box.labels = box.labels.filter((label) => label.role !== 'neutral');
    await choose(job);
    const link = (await screen.findAllByRole('link', { name: /^Test: Supply volts/ }))[0];
    expect(link).toHaveAttribute('href', '/jobs/shed-job/box/shed?test=neutral'.replace('shed-job', job.id));
  });
});

describe('the house', () => {
  test('strategies side by side, none that serves nothing; a device ruled out is in no plan; the plan is adopted', async () => {
    const { job: now } = await shown(exampleJob('shed'), <PlansView />, '/plans');
    const table = await screen.findByRole('table', { name: 'Plans by strategy' });
    expect(within(table).getByRole('row', { name: /^Places served/ })).toHaveTextContent(
      /^Places served2 of 21 of 22 of 2$/,
    );
    expect(within(table).getByRole('row', { name: /^Cost/ })).toHaveTextContent('112.30');
    const places = screen.getByRole('region', { name: 'Place by place' });
    press(/^Rule out .* at /, places);
    await waitFor(() => expect(now().brief?.bans).toHaveLength(1));
    await waitFor(() =>
      expect(within(table).getByRole('row', { name: /^Cost/ })).not.toHaveTextContent('112.30'),
    );
    press(/^Allow again/);
    await waitFor(() =>
      expect(within(table).getByRole('row', { name: /^Cost/ })).toHaveTextContent('112.30'),
    );
    press(/^Pin /, places);
    expect(now().brief?.pins).toHaveLength(1);
    // It was chosen so all along: there is nothing left to adopt.
    expect(screen.getByRole('button', { name: 'This plan is the choice' })).toBeDisabled();
    fireEvent.click(within(table).getByRole('button', { name: 'No hub' }));
    press(/^Adopt: no hub/);
    expect(now().selections.map((selection) => [selection.position, selection.deviceId])).toEqual([
      [1, 'pw-15'],
    ]);
  });

  test('what one more wish would cost is worked out when it is asked for', async () => {
    const job = exampleJob('shed');
    job.catalogue.platforms.push({ name: 'Lantern', matching: 'exact' });
    await shown(job, <PlansView />, '/plans');
    press('Work out what it would cost', await screen.findByRole('region', { name: 'One more wish' }));
    expect(await screen.findByText('Lantern as a must')).toBeInTheDocument();
    expect(screen.getByText('Lantern as a must').nextElementSibling).toHaveTextContent('2 places fewer');
  });

  test('a house where nothing is asked for says what to do', async () => {
    const job = exampleJob('pantry');
    for (const position of job.boxes[0]?.positions ?? []) position.need = { smart: false };
    await shown(job, <PlansView />, '/plans');
    expect(await screen.findByText('No place wants a device yet')).toBeInTheDocument();
  });
});

test('what is wired and mounted is left as it is', async () => {
  const job = exampleJob('pantry');
  job.events.push({ id: 'e1', kind: 'mounted', boxId: 'pantry' });
  await shown(job, <PlansView />, '/plans');
  expect(await screen.findByText('Nothing is left to plan')).toBeInTheDocument();
  expect(screen.getByText(/1 more place is wired and mounted/)).toBeInTheDocument();
});

test('materials: what is in hand is not bought again, and can be put back; the trial unit is named where one is wanted', async () => {
  const job = exampleJob('pantry');
  job.brief = { ...job.brief, trialFirst: true };
  const { job: now } = await shown(job, <MaterialsView />, '/materials');
  expect(screen.getByRole('region', { name: 'Trial unit' })).toHaveTextContent('its only place');
  const lineOf = () => screen.getAllByRole('row').find((row) => row.textContent?.includes('1 needed'));
  press('Mark as in hand', lineOf());
  expect(Object.values(now().inHand ?? {})).toEqual([1]);
  expect(screen.getByText('Still to buy: $0.00.')).toBeInTheDocument();
  press('Not in hand', lineOf());
  expect(now().inHand).toEqual({});
});

describe('the catalogue', () => {
  const catalogue = (path = '/catalogue/devices') =>
    shown(exampleJob('shed'), <CatalogueView />, path, '/catalogue/:kind?/:deviceId?');

  test('a sheet typed in is checked field by field, and kept when it holds together', async () => {
    const { job: now } = await catalogue();
    press('Add a device');
    const dialog = await screen.findByRole('dialog');
    press('Keep the data sheet', dialog);
    expect(await within(dialog).findByRole('alert')).toHaveTextContent('/maker is empty');
    for (const field of ['Maker', 'Model', 'Family'])
      fireEvent.change(within(dialog).getByLabelText(field), { target: { value: `New ${field}` } });
    press('Add a channel', dialog);
    press('Keep the data sheet', dialog);
    await waitFor(() => expect(now().catalogue.devices).toHaveLength(3));
    expect(now().catalogue.devices[2]).toMatchObject({
      maker: 'New Maker',
      channels: [{ id: 1 }, { id: 2 }],
    });
  });

  test('a device of the job is not deleted from under it', async () => {
    await catalogue('/catalogue/devices/pw-15');
    expect(await screen.findByText(/chosen for 1 place/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /^Delete/ })).toBeDisabled();
  });

  test('a hub changed in its form; its id stays what it was', async () => {
    const { job: now } = await catalogue('/catalogue/hubs');
    press(/^Hub ha-hub/);
    const dialog = await screen.findByRole('dialog');
    expect(within(dialog).queryByLabelText('Id')).toBeNull();
    fireEvent.change(within(dialog).getByLabelText('Devices it takes'), { target: { value: '12' } });
    press('Keep it', dialog);
    await waitFor(() => expect(now().catalogue.hubs[0]).toMatchObject({ id: 'ha-hub', deviceLimit: 12 }));
  });

  test('a file that does not fit is refused with its field, and nothing changes', async () => {
    const { job: now } = await catalogue('/catalogue/hubs');
    const before = now().catalogue;
    const file = new File(
      ['id,name,price,radio,platforms,deviceLimit,wired\nh9,Nine,cheap,mesh,,5,true\n'],
      'hubs.csv',
      {
        type: 'text/csv',
      },
    );
    Object.assign(file, {
      text: async () => 'id,name,price,radio,platforms,deviceLimit,wired\nh9,Nine,cheap,mesh,,5,true\n',
    });
    fireEvent.change(screen.getByLabelText('Catalogue file'), { target: { files: [file] } });
    expect(await screen.findByRole('dialog')).toHaveTextContent('/catalogue/hubs/0/price');
    expect(now().catalogue).toBe(before);
  });
});
