import '@testing-library/jest-dom/jest-globals';
import type { Job } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { pickListed, press, shown, type } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { BriefView } from './brief.js';

const asked = (name: string) => screen.getByRole('region', { name });
const open = (): Job => ({ ...exampleJob('shed'), brief: {} });

describe('the client’s words', () => {
  test('an assistant that is a must says how many devices it leaves, before it is chosen', async () => {
    const job = open();
    job.catalogue.platforms = [{ name: 'Lantern' }] as Job['catalogue']['platforms'];
    const { job: now } = await shown(job, <BriefView />);
    const section = asked('Apps and assistants');
    expect(within(section).getByRole('button', { name: /^We must have it/ })).toHaveTextContent(
      /\d+ devices?/,
    );
    press(/^We must have it/, section);
    expect(now().brief?.platforms).toEqual([{ name: 'Lantern', want: 'must' }]);
    press(/^It would be nice/, section);
    expect(now().brief?.platforms).toEqual([{ name: 'Lantern', want: 'nice' }]);
    press(/^No/, section);
    expect(now().brief?.platforms).toEqual([]);
  });

  test('no hub in the house is an answer, and one there another', async () => {
    const { job: now } = await shown(open(), <BriefView />);
    const section = asked('Hubs there already');
    press('None of them', section);
    expect(now().brief?.hubsOwned).toEqual([]);
    const [hub] = now().catalogue.hubs;
    press(String(hub?.name), section);
    expect(now().brief?.hubsOwned).toEqual([hub?.id]);
    await pickListed(/stands, or would stand, in/, String(now().rooms[0]?.name), section);
    expect(now().brief?.hubRooms).toEqual({ [String(hub?.id)]: now().rooms[0]?.id });
  });

  test('more than one thing to press may be liked, and one taken back', async () => {
    const { job: now } = await shown(open(), <BriefView />);
    const section = asked('The feel of a switch');
    press(/^paddle/, section);
    press(/^dial/, section);
    expect(now().brief?.feel?.actuators).toEqual(['paddle', 'dial']);
    press(/^paddle/, section);
    expect(now().brief?.feel?.actuators).toEqual(['dial']);
    press(/^Silent, please/, section);
    expect(now().brief?.feel).toMatchObject({ silent: true, actuators: ['dial'] });
  });

  test('money is in the currency of the job; what is no amount is not written down', async () => {
    const { job: now } = await shown(open(), <BriefView />);
    const section = asked('Money and spares');
    type('What may it cost?', '450.50', section);
    expect(now().brief?.budget).toBe(45_050);
    type('What may it cost?', 'a lot', section);
    expect(within(section).getByText('This is not a number.')).toBeInTheDocument();
    expect(now().brief?.budget).toBe(45_050);
    type('Spares of each model to keep', '2', section);
    expect(now().brief?.spares).toBe(2);
  });

  test('an emptied answer is not said any more; the labour rate of the table goes to the job', async () => {
    const { job: now } = await shown(open(), <BriefView />);
    const section = asked('Money and spares');
    type('Spares of each model to keep', '2', section);
    type('An hour of work', '64,5', section);
    expect(now().money?.labourPerHour).toBe(6450);
    type('An hour of work', '', section);
    expect(within(section).queryByRole('alert')).toBeNull();
    expect(now().money?.labourPerHour).toBe(6450);
    expect(now().brief).toEqual({ spares: 2 });
    type('Spares of each model to keep', '', section);
    expect(now().brief).toEqual({});
    type('Spares of each model to keep', '1.5', section);
    expect(within(section).getByText('Only whole numbers go here.')).toBeInTheDocument();
    expect(now().brief).toEqual({});
  });

  test('what one field does not take holds no other up, and stays in it', async () => {
    const { job: now } = await shown(open(), <BriefView />);
    const section = asked('The router');
    type('Things on the Wi-Fi now', 'many', section);
    type('How many the router can take', '40', section);
    press('Yes', section);
    expect(now().brief?.wifi).toEqual({ clientLimit: 40, band24: true });
    expect(within(section).getByLabelText('Things on the Wi-Fi now')).toHaveValue('many');
    const room = String(now().rooms[0]?.name);
    await pickListed(/It stands in/, room, section);
    expect(now().brief?.wifi?.routerRoom).toBe(now().rooms[0]?.id);
    await pickListed(/It stands in/, 'not said', section);
    expect(now().brief?.wifi).toEqual({ clientLimit: 40, band24: true });
    expect(within(section).getByRole('button', { name: /It stands in/ })).toHaveTextContent('not said');
    type('How many the router can take', '41', section);
    expect(now().brief?.wifi).toEqual({ clientLimit: 41, band24: true });
    expect(within(section).getByRole('button', { name: /It stands in/ })).toHaveTextContent('not said');
  });

  test('an answer that was there can be taken back, and what others answer comes in', async () => {
    const job: Job = { ...open(), brief: { spares: 2, wifi: { clientLimit: 40, routerRoom: 'shed-room' } } };
    const { job: now, undo } = await shown(job, <BriefView />);
    const router = asked('The router');
    await pickListed(/It stands in/, 'not said', router);
    expect(now().brief?.wifi).toEqual({ clientLimit: 40 });
    expect(within(router).getByRole('button', { name: /It stands in/ })).toHaveTextContent('not said');
    type('How many the router can take', '', router);
    press('Yes', router);
    expect(now().brief?.wifi).toEqual({ band24: true });
    expect(within(router).getByLabelText('How many the router can take')).toHaveValue('');
    expect(within(router).getByRole('button', { name: /It stands in/ })).toHaveTextContent('not said');
    undo();
    expect(now().brief?.wifi).toEqual({});
    undo();
    await waitFor(() =>
      expect(within(router).getByLabelText('How many the router can take')).toHaveValue('40'),
    );
    undo();
    expect(now().brief?.wifi).toEqual({ clientLimit: 40, routerRoom: 'shed-room' });
    expect(now().brief?.spares).toBe(2);
  });

  test('connectors have an order of preference', async () => {
    const { job: now } = await shown(open(), <BriefView />);
    const section = asked('Money and spares');
    press('lever', section);
    press('twist-on', section);
    expect(now().brief?.connectors).toEqual(['lever', 'twist-on']);
    expect(within(section).getByRole('button', { name: '2. twist-on' })).toBeInTheDocument();
    press('1. lever', section);
    expect(now().brief?.connectors).toEqual(['twist-on']);
  });

  test('keystrokes of one answer are one step back', async () => {
    const { job: now, undo } = await shown(open(), <BriefView />);
    const section = asked('Money and spares');
    for (const text of ['1', '12', '120']) type('What may it cost?', text, section);
    expect(now().brief?.budget).toBe(12_000);
    undo();
    expect(now().brief).not.toHaveProperty('budget');
    await waitFor(() => expect(within(section).getByLabelText('What may it cost?')).toHaveValue(''));
  });
});
