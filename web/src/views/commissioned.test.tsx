import '@testing-library/jest-dom/jest-globals';
import { describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { dialog, pickListed, pickRadio, press, shown, type } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { NamesView } from './names/names.js';
import { PairView } from './pair/pair.js';
import { RulesView } from './rules/rules.js';
import { TuneView } from './tune/tune.js';

describe('names', () => {
  test('what troubles comes up, is told while typing, and is put right with the suggestion', async () => {
    const { job: now } = await shown(exampleJob('long-room'), <NamesView />, '/names', '/names');
    expect(screen.getAllByText('5 of 5 names will trouble somebody')).not.toHaveLength(0);
    const hand = screen.getByRole('region', { name: 'In the hand' });
    expect(within(hand).getByText('Orrery keeps "routine" for itself.')).toBeInTheDocument();
    type('Name of Left key', 'Porch lamp', hand);
    expect(await within(hand).findByText(/has the same name/)).toBeInTheDocument();
    press(/^Rather/, hand);
    press('Name it so', hand);
    await waitFor(() => expect(now().pairings.find(({ id }) => id === 'p1')?.name).toBe('Table lamps'));
    expect(await screen.findAllByText('4 of 5 names will trouble somebody')).not.toHaveLength(0);
    expect(screen.getByText('“turn on Table lamps”, “turn off Table lamps”')).toBeInTheDocument();
  });

  test('a name that troubles is put right with one touch', async () => {
    const { job: now } = await shown(exampleJob('long-room'), <NamesView />, '/names', '/names');
    const hand = screen.getByRole('region', { name: 'In the hand' });
    press('Name it Table lamps', hand);
    await waitFor(() => expect(now().pairings.find(({ id }) => id === 'p1')?.name).toBe('Table lamps'));
  });

  test('the old device comes out of its hub first, then its name is free', async () => {
    const { job: now } = await shown(exampleJob('long-room'), <NamesView />, '/names', '/names');
    press(/^Reading chair/);
    press('The old one is out');
    await waitFor(() =>
      expect(now().boxes.find(({ id }) => id === 'nook')?.positions[0]?.replaces?.removed).toBe(true),
    );
  });

  test('what an app shows otherwise is recorded with it', async () => {
    const { job: now } = await shown(exampleJob('long-room'), <NamesView />, '/names', '/names');
    type('Hearthside shows it as', 'The lamps');
    await waitFor(() =>
      expect(now().pairings.find(({ id }) => id === 'p1')?.names).toEqual({ Hearthside: 'The lamps' }),
    );
  });
});

describe('rules', () => {
  const rules = () => shown(exampleJob('long-room'), <RulesView />, '/rules', '/rules');

  test('each in words, with what clashes; seen to fire is one touch', async () => {
    const { job: now } = await rules();
    const list = screen.getByRole('list', { name: 'Rules' });
    expect(within(list).getByText(/15 minutes after sunset: "Birch lamp" on\./)).toBeInTheDocument();
    expect(
      await within(list).findAllByText(/set "Birch lamp" to different states in the same minute/),
    ).toHaveLength(2);
    press('Seen to fire', list);
    await waitFor(() => expect(now().automations.filter(({ seen }) => seen)).toHaveLength(1));
  });

  test('a day is told in words too, put off where the clock jumps', async () => {
    await rules();
    // Any day, not only one of the year to come.
    type('Date', '2026-03-29');
    const day = await screen.findByRole('list', { name: 'Firings of 2026-03-29' });
    expect(day).toHaveTextContent('02:20 Drier on in the small hours, put off by the change of the clock');
  });

  test('what a rule costs asks for the tariff where it is not known', async () => {
    localStorage.removeItem('energy');
    const job = exampleJob('long-room');
    const target = { boxId: 'gate', position: 1, channel: 1 };
    const rule = (id: string, at: string, does: 'on' | 'off') => ({
      ...{ id, name: id, lives: 'Orrery', when: { at } },
      then: [{ target, do: does }],
    });
    job.automations = [rule('Gate lit', '18:00', 'on'), rule('Gate dark', '23:00', 'off')];
    job.opposites = [];
    await shown(job, <RulesView />, '/rules', '/rules');
    const row = await screen.findByRole('row', { name: /^Gate lit/ });
    // One lamp of 8 W, five hours a day.
    expect(row).toHaveTextContent('Gate lit182515no tariff');
    type('A kWh costs', '30');
    await waitFor(() => expect(row).toHaveTextContent(/Gate lit182515\D*4\.38/));
  });

  test('conflicts of rules that bear one name are told each', async () => {
    const job = exampleJob('long-room');
    const target = { boxId: 'gate', position: 1, channel: 1 };
    const clash = (at: string) =>
      (['on', 'off'] as const).map((does) => ({
        ...{ id: `${at} ${does}`, name: 'Evening', lives: 'Orrery', when: { at } },
        then: [{ target, do: does }],
      }));
    job.automations = [...clash('18:00'), ...clash('19:00')];
    job.opposites = [];
    await shown(job, <RulesView />, '/rules', '/rules');
    expect(await screen.findAllByText('4 rules, 2 conflicts, 4 not seen to fire')).not.toHaveLength(0);
    // Each at both its rules, and in the list of all.
    expect(screen.getAllByText(/^"Evening" and "Evening" set .* in the same minute/)).toHaveLength(6);
  });

  test('a new rule by the sun, with hours; what is wrong with it is said and stays', async () => {
    const { job: now } = await rules();
    press('New rule');
    const sheet = await dialog();
    press('Keep the rule', sheet);
    expect(await within(sheet).findByRole('alert')).toHaveTextContent('Give the rule a name.');
    type('Name', 'Nook after dark', sheet);
    pickRadio('When', 'sunset', sheet);
    type(/^Minutes after sunset/, '-20', sheet);
    type('Only from', '25:00', sheet);
    type('to', '23:00', sheet);
    press('Keep the rule', sheet);
    await waitFor(() => expect(within(sheet).getByRole('alert')).toHaveTextContent(/if from: /));
    type('Only from', '16:00', sheet);
    await pickListed(/^Target 1/, /Reading chair/, sheet);
    press('Keep the rule', sheet);
    await waitFor(() =>
      expect(now().automations.at(-1)).toMatchObject({
        name: 'Nook after dark',
        lives: 'Orrery',
        when: { sun: 'sunset', offset: -20 },
        if: { from: '16:00', to: '23:00' },
        then: [{ target: { boxId: 'nook', position: 1, channel: 2 }, do: 'on' }],
      }),
    );
  });

  test('everything off on leaving is built from the house, and can be changed before it is kept', async () => {
    const { job: now } = await rules();
    press('Everything off on leaving …');
    const sheet = await dialog();
    press('Take out 1', sheet);
    press('Keep the rule', sheet);
    await waitFor(() => expect(now().automations.at(-1)?.when).toEqual({ presence: 'leave' }));
    expect(
      now()
        .automations.at(-1)
        ?.then?.every(({ do: what }) => what === 'off'),
    ).toBe(true);
  });

  test('two are to be lit in turn: said once, and both lit is a conflict', async () => {
    const job = exampleJob('long-room');
    job.opposites = [];
    const { job: now } = await shown(job, <RulesView />, '/rules', '/rules');
    press('Lit in turn …');
    const sheet = await dialog();
    await pickListed(/^One/, /Birch lamp/, sheet);
    await pickListed(/^The other/, /Birch lamp/, sheet);
    expect(await within(sheet).findByText('Choose two that are not the same.')).toBeInTheDocument();
    await pickListed(/^The other/, /Reading chair/, sheet);
    press('Add the pair', sheet);
    await waitFor(() => expect(now().opposites).toHaveLength(1));
    expect(now().opposites?.[0]).toMatchObject({
      a: { thingId: expect.any(String) },
      b: { boxId: 'nook', position: 1 },
    });
    press(/^Take out "Birch lamp" and/, sheet);
    await waitFor(() => expect(now().opposites).toEqual([]));
  });

  test('a thing that is taken out takes its rules with it', async () => {
    const { job: now } = await rules();
    press('Things outside boxes …');
    const sheet = await dialog();
    type('Name', 'Mantel plug', sheet);
    press('Add it', sheet);
    await waitFor(() => expect(now().things?.at(-1)).toMatchObject({ name: 'Mantel plug', kind: 'plug' }));
    press('Take out Birch lamp', sheet);
    await waitFor(() => expect(now().things?.some(({ id }) => id === 'lantern')).toBe(false));
    expect(now().automations.some(({ id }) => id === 'lantern-on')).toBe(false);
  });

  test('without a zone it is said what the job has to know', async () => {
    const job = exampleJob('long-room');
    job.site = {};
    await shown(job, <RulesView />, '/rules', '/rules');
    expect(screen.getByText(/once the job knows its time zone/)).toBeInTheDocument();
  });
});

describe('tune', () => {
  /** The porch key as a dimmer. */
  function dimmed() {
    const job = exampleJob('long-room');
    const device = job.catalogue.devices.find(({ id }) => id === 'wr-plain');
    if (device) device.channels = [{ id: 1, kind: 'dimmer', ratings: [] }];
    return job;
  }

  test('the low end is found level by level, and set with its margin', async () => {
    const { job: now } = await shown(dimmed(), <TuneView />, '/tune?at=gate/1/1', '/tune');
    const looks = () => now().pairings.find(({ id }) => id === 'p5')?.trim ?? [];
    for (let turn = 0; screen.queryByText(/Set the low end to/) === null; turn += 1) {
      const level = Number(screen.getByText(/^\d+ %$/).textContent?.replace(' %', ''));
      press(level >= 9 ? 'Steady' : 'It flickers');
      await waitFor(() => expect(looks()).toHaveLength(turn + 1));
    }
    press('It is set to 11 %');
    await waitFor(() =>
      expect(now().pairings.find(({ id }) => id === 'p5')?.settings).toMatchObject([
        { name: 'Low end', value: 11, for: 'the client' },
      ]),
    );
    expect(looks()[0]).toMatchObject({ level: 20, steady: true });
  });

  test('every setting is kept with who asked for it', async () => {
    const { job: now } = await shown(dimmed(), <TuneView />, '/tune?at=gate/1/1', '/tune');
    pickRadio('Asked for by', 'the installer');
    await pickListed(/^Bulb type/, 'LED');
    await waitFor(() =>
      expect(now().pairings.find(({ id }) => id === 'p5')?.settings).toMatchObject([
        { name: 'Bulb type', value: 'LED', for: 'the installer' },
      ]),
    );
    type('Top end', '80 %');
    press('Keep');
    await waitFor(() => expect(now().pairings.find(({ id }) => id === 'p5')?.settings).toHaveLength(2));
  });
});

describe('rules of every kind', () => {
  const shownRules = () => shown(exampleJob('long-room'), <RulesView />, '/rules', '/rules');
  /** Opens the form for a new rule with its name, and picks what sets it off. */
  async function newRule(starter: string) {
    press('New rule');
    const sheet = await dialog();
    type('Name', `By ${starter}`, sheet);
    pickRadio('When', starter, sheet);
    return sheet;
  }
  const last = (now: () => ReturnType<typeof exampleJob>) => now().automations.at(-1);

  test('motion, with hours that cross midnight and only while it is dark', async () => {
    const { job: now } = await shownRules();
    const sheet = await newRule('motion');
    await pickListed(/^Seen by/, /Chimney eye/, sheet);
    type('Only from', '21:00', sheet);
    type('to', '06:00', sheet);
    sheet.querySelector<HTMLElement>('[role="switch"]')?.click();
    await pickListed(/^What 1 does/, 'to a level', sheet);
    type('Level', '20', sheet);
    press('Keep the rule', sheet);
    await waitFor(() =>
      expect(last(now)).toMatchObject({
        when: { motion: { thingId: 'eye' } },
        if: { from: '21:00', to: '06:00', dark: true },
        then: [{ do: 'level', value: 20 }],
      }),
    );
    expect(
      screen.getByText(/On motion at "Chimney eye", between 21:00 and 06:00, while it is dark/),
    ).toBeInTheDocument();
  });

  test('damp air, taps, somebody leaving, a countdown', async () => {
    const { job: now } = await shownRules();
    let sheet = await newRule('damp air');
    type('Above', '70', sheet);
    press('Keep the rule', sheet);
    await waitFor(() => expect(last(now)?.when).toMatchObject({ above: 70 }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    sheet = await newRule('taps');
    type('Taps', '3', sheet);
    press('Keep the rule', sheet);
    await waitFor(() => expect(last(now)?.when).toMatchObject({ times: 3 }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    sheet = await newRule('coming or going');
    pickRadio('Who', 'the first one comes', sheet);
    press('Keep the rule', sheet);
    await waitFor(() => expect(last(now)?.when).toEqual({ presence: 'arrive' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    sheet = await newRule('a countdown');
    type('Minutes', '25', sheet);
    press('Keep the rule', sheet);
    await waitFor(() => expect(last(now)?.when).toMatchObject({ countdown: 25, of: { boxId: 'door' } }));
    expect(last(now)).not.toHaveProperty('then');
  });

  test('on some days only; edited it keeps its id, deleted it comes back', async () => {
    const { job: now } = await shownRules();
    press('Edit Reading hour');
    const sheet = await dialog();
    press('Fr', sheet);
    type('At', '19:45', sheet);
    press('Keep the rule', sheet);
    const reading = () => now().automations.find(({ id }) => id === 'reading');
    await waitFor(() =>
      expect(reading()).toMatchObject({ when: { at: '19:45' }, days: ['fri', 'sat', 'sun'] }),
    );
    press('Delete Reading hour');
    await waitFor(() => expect(reading()).toBeUndefined());
    press('Undo');
    await waitFor(() => expect(reading()).toBeDefined());
    press('Switch off');
    await waitFor(() => expect(now().automations[0]?.enabled).toBe(false));
  });
});

describe('names of two channels', () => {
  test('each channel is held by itself, and a name taken back leaves it without one', async () => {
    const { job: now } = await shown(exampleJob('long-room'), <NamesView />, '/names', '/names');
    press(/^Light 2/);
    const hand = screen.getByRole('region', { name: 'In the hand' });
    expect(within(hand).getByRole('heading')).toHaveTextContent('Long room, door, Right key');
    type('Name of Right key', '!!', hand);
    expect(await within(hand).findByText('It has no name yet.')).toBeInTheDocument();
    type('Name of Right key', 'Long room', hand);
    expect(await within(hand).findByText(/It is the name of the room "Long room"/)).toBeInTheDocument();
    press('Name it so', hand);
    await waitFor(() => expect(now().pairings.find(({ id }) => id === 'p2')?.name).toBe('Long room'));
  });
});

describe('remotes', () => {
  test('each is bound to what it works, which it shows by a ramp; then it is out of the way', async () => {
    const job = exampleJob('long-room');
    job.controlPoints = [
      {
        id: 'wand',
        roomId: 'long',
        name: 'Wand by the door',
        deviceId: 'wr-plain',
        targets: [{ boxId: 'door', position: 1 }, { loadId: 'porch-lamp' }],
      },
    ];
    const { job: now } = await shown(job, <PairView />, '/pair', '/pair', (path) =>
      path.includes('/site') ? Promise.reject(new TypeError('network')) : null,
    );
    const remotes = screen.getByRole('region', { name: 'Remotes' });
    press('It did not', remotes);
    await waitFor(() =>
      expect(now().controlPoints?.[0]?.bound).toMatchObject([{ boxId: 'door', ok: false }]),
    );
    expect(within(remotes).getByText(/it did not ramp/)).toBeInTheDocument();
    press('It ramped', remotes);
    await waitFor(() => expect(now().controlPoints?.[0]?.bound).toHaveLength(2));
    press('It ramped', screen.getByRole('region', { name: 'Remotes' }));
    await waitFor(() => expect(screen.queryByRole('region', { name: 'Remotes' })).toBeNull());
  });
});
