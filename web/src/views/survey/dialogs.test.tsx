import '@testing-library/jest-dom/jest-globals';
import {
  type Box,
  type Job,
  lookup,
  newBox,
  powerOfBox,
  presetContents,
  standsEvent,
} from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useJob } from '../../data/job-context.js';
import { dialog, pickListed, pickRadio, press, shown, type } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { CableDialog } from './board/cable-dialog.js';
import { ConductorDialog } from './board/conductor-dialog.js';
import type { ChangeBox } from './change-box.js';
import { SmartAsFound } from './positions/smart-as-found.js';
import { ProofStands } from './proof/proof-stands.js';

/** One switch fed at its box, with its breaker recorded off. */
function oneBox(): Job {
  const job = exampleJob('pantry');
  const [circuit] = job.circuits;
  if (!circuit) throw new Error('the pantry has a circuit');
  let serial = 0;
  const box: Box = {
    ...newBox({ id: 'b', roomId: job.rooms[0]?.id ?? '', name: 'Door', order: 1 }, 'us'),
    ...presetContents({ preset: 'power-at-switch', practice: 'us', size: '14AWG' }, () => `c${++serial}`),
    circuitIds: [circuit.id],
    readings: [],
  };
  const at = new Date().toISOString();
  return {
    ...job,
    boxes: [box],
    selections: [],
    groups: [],
    runs: [],
    pairings: [],
    events: [{ id: 'off', kind: 'switched', circuitId: circuit.id, state: 'off', at }] as Job['events'],
  };
}

const boxOf = (job: Job) => job.boxes[0] as Box;
/** Changes of the box in hand, each recorded as it is made. */
const changing =
  (seen: string[]): ChangeBox =>
  (_, label) =>
    void seen.push(label);

describe('a conductor corrected', () => {
  /** The dialog on the box as it stands after every change. */
  function Correcting({ id }: { id: string }) {
    const { known, apply } = useJob();
    const box = known.boxes.get('b') as Box;
    const conductor = box.conductors.find((entry) => entry.id === id);
    if (!conductor) return <p>It is out</p>;
    const change: ChangeBox = (more, label) =>
      void apply(
        [
          {
            kind: 'box',
            id: 'b',
            base: null,
            set: Object.fromEntries(
              Object.entries(more).map(([field, now]) => [
                field,
                { was: box[field as keyof Box] ?? null, now },
              ]),
            ),
          } as never,
        ],
        label,
      );
    return (
      <ConductorDialog
        box={box}
        conductor={conductor}
        change={change}
        onMove={(end) => moving.push(end)}
        onClose={() => {}}
      />
    );
  }
  const moving: (0 | 1)[] = [];
  const correcting = async () => {
    const job = oneBox();
    const id = String(boxOf(job).conductors[0]?.id);
    const { job: now } = await shown(job, <Correcting id={id} />);
    return { now: () => boxOf(now()).conductors.find((entry) => entry.id === id), all: now, id };
  };

  test('colour and size, each recorded by its touch; sizes of the practice stand first', async () => {
    const { now } = await correcting();
    await pickListed(/^Colour/, 'red');
    expect(now()?.colour).toBe('red');
    fireEvent.click(screen.getByRole('button', { name: /^Size/ }));
    const sizes = (await screen.findAllByRole('option')).map(({ textContent }) => textContent);
    expect(sizes[0]).toMatch(/AWG$/);
    expect(sizes.at(-1)).toMatch(/mm²$/);
  });

  test('aluminium stops the work at once, in its own words', async () => {
    const { now } = await correcting();
    await pickListed(/^Metal/, 'aluminium');
    expect(now()?.material).toBe('aluminium');
    expect(screen.getByText(/^Stop: /)).toBeInTheDocument();
    await pickListed(/^Metal/, 'copper');
    expect(now()).not.toHaveProperty('material');
    expect(screen.queryByText(/^Stop: /)).toBeNull();
  });

  test('what was marked and is not is absent again', async () => {
    const { now } = await correcting();
    type('Marking', 'white tape');
    expect(now()?.marking).toBe('white tape');
    type('Marking', '');
    expect(now()).not.toHaveProperty('marking');
  });

  test('says where it ends; to move that, the end comes into the hand', async () => {
    moving.length = 0;
    await correcting();
    expect(screen.getByText('On terminal a of position 1')).toBeInTheDocument();
    press('Move its end');
    expect(moving).toEqual([0]);
  });

  test('taken out, it is nowhere in the box', async () => {
    const { now, all, id } = await correcting();
    press('Delete this conductor');
    expect(now()).toBeUndefined();
    expect(JSON.stringify(boxOf(all()))).not.toContain(`"${id}"`);
  });
});

describe('a cable', () => {
  test('is named, and takes one more conductor of a colour', async () => {
    const job = oneBox();
    const seen: string[] = [];
    const cableId = String(boxOf(job).cables[0]?.id);
    await shown(
      job,
      <CableDialog box={boxOf(job)} cableId={cableId} change={changing(seen)} onClose={() => {}} />,
    );
    const said = await dialog();
    type('Called', 'from the cellar', said);
    press('red', said);
    expect(seen).toEqual(['Name a cable', 'Add a red conductor']);
  });

  test('goes to the panel: supposed first, and how it is known is said', async () => {
    const job = oneBox();
    const cableId = String(boxOf(job).cables[0]?.id);
    const { job: now } = await shown(
      job,
      <CableDialog box={boxOf(job)} cableId={cableId} change={changing([])} onClose={() => {}} />,
    );
    await pickListed(/^Goes to/, new RegExp(`^the panel, breaker ${job.circuits[0]?.breaker}`));
    expect(now().runs).toMatchObject([{ known: 'supposed' }]);
    pickRadio('How that is known', 'tested');
    expect(now().runs).toMatchObject([{ known: 'tested' }]);
    await pickListed(/^Goes to/, 'not known');
    expect(now().runs).toEqual([]);
  });

  test('taken out goes with its conductors and where it led', async () => {
    const job = oneBox();
    const cableId = String(boxOf(job).cables[0]?.id);
    let closed = false;
    const { job: now } = await shown(
      job,
      <CableDialog
        box={boxOf(job)}
        cableId={cableId}
        change={changing([])}
        onClose={() => {
          closed = true;
        }}
      />,
    );
    press('Delete the cable');
    expect(closed).toBe(true);
    expect(boxOf(now()).cables.map(({ id }) => id)).not.toContain(cableId);
    expect(boxOf(now()).conductors.some((conductor) => conductor.cableId === cableId)).toBe(false);
  });
});

describe('an old smart device as found', () => {
  const found = async () => {
    const job = oneBox();
    const position = boxOf(job).positions[0];
    if (!position) throw new Error('the box has a position');
    let closed = false;
    const scene = await shown(
      job,
      <SmartAsFound
        box={boxOf(job)}
        position={position}
        onClose={() => {
          closed = true;
        }}
      />,
    );
    return { now: scene.job, closed: () => closed };
  };

  test('that no catalogue has is recorded with its terminals and marks, and no plan buys it', async () => {
    const { now, closed } = await found();
    const said = await dialog();
    type('Maker', 'Nobody known', said);
    type(/^Model/, 'a grey one', said);
    type('Its name in the client’s app', 'Hall', said);
    press('Record it', said);
    await waitFor(() => expect(closed()).toBe(true));
    const position = boxOf(now()).positions[0];
    expect(position?.replaces).toMatchObject({ name: 'Hall' });
    const device = now().catalogue.devices.find(({ id }) => id === position?.deviceId);
    expect(device).toMatchObject({ maker: 'Nobody known' });
    expect(device?.practices).toEqual([]);
  });

  test('whether it was taken out of its app is asked once it has a name there', async () => {
    await found();
    const said = await dialog();
    const asked = () => within(said).queryByRole('switch', { name: /taken out of its hub/ });
    expect(asked()).toBeNull();
    type('Its name in the client’s app', 'Hall', said);
    await waitFor(() => expect(asked()).not.toBeNull());
  });
});

describe('a proof', () => {
  function Proving() {
    const { known } = useJob();
    return <ProofStands box={known.boxes.get('b') as Box} />;
  }
  const told = () => screen.getByRole('button', { name: /^[\d.]+ V, all \d+ under 5 V, [\d.]+ V again$/ });

  test('wants the known source first; then one touch says every pair, and the source again', async () => {
    const { job: now } = await shown(oneBox(), <Proving />);
    expect(screen.getByText('Not proved dead.')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /under 5 V/ })).toBeNull();
    press('121 V');
    fireEvent.click(told());
    expect(now().events.at(-1)).toMatchObject({
      kind: 'proved',
      boxId: 'b',
      stage: 'face',
      volts: 121,
      voltsAfter: 121,
    });
    expect(powerOfBox(now(), boxOf(now()), { now: Date.now() })?.dead).toBe('face');
    expect(await screen.findByText(/Once more with the device out/)).toBeInTheDocument();
    // The source was read at this box a moment ago: it stands for the next stage, until another is told.
    expect(told()).toHaveAccessibleName(/^121 V, all/);
    press('Other source');
    expect(screen.queryByRole('button', { name: /under 5 V/ })).toBeNull();
    press('120 V');
    fireEvent.click(told());
    expect(now().events.at(-1)).toMatchObject({ stage: 'device-out', volts: 120 });
  });

  test('with the device out the pair is told of that stage, and of the position that is out', async () => {
    const job = oneBox();
    const at = new Date(Date.now() - 1000).toISOString();
    job.events.push(standsEvent('b', { arrangement: 'device-out', position: 1 }, { id: 'out', at }));
    const { job: now } = await shown(job, <Proving />);
    press('121 V');
    press('One is not');
    await pickListed(/^Which pair is not under 5 V/, /^the black of cable A to earth/);
    type(/^Volts, the black of cable A to earth/, '118');
    press('Record 118 V');
    expect(boxOf(now()).readings.at(-1)).toMatchObject({ arrangement: 'device-out', position: 1 });
  });

  test('a source that is none is not taken', async () => {
    await shown(oneBox(), <Proving />);
    press('another');
    type(/^Tester on a known source/, '3');
    expect(screen.getByText('At least 50.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /^Record/ })).toBeDisabled();
    type(/^Tester on a known source/, '119.4');
    press('Record 119.4 V');
    expect(told()).toHaveAccessibleName(/^119.4 V, all/);
  });

  test('a source that reads otherwise afterwards is a tester nobody trusts', async () => {
    const { job: now } = await shown(oneBox(), <Proving />);
    press('121 V');
    press('Source differs after');
    type(/^The known source again/, '60');
    press('Record 60 V');
    expect(screen.getByRole('alert')).toHaveTextContent('the tester cannot be trusted');
    expect(now().events.some(({ kind }) => kind === 'proved')).toBe(false);
  });

  test('a pair over 5 V is written down, and nothing is proved', async () => {
    const { job: now } = await shown(oneBox(), <Proving />);
    press('121 V');
    press('One is not');
    await pickListed(/^Which pair is not under 5 V/, /^the black of cable A to earth/);
    type(/^Volts, the black of cable A to earth/, '118');
    press('Record 118 V');
    expect(lookup(now()).boxes.get('b')?.readings.at(-1)).toMatchObject({ tool: 'volts-low-z', value: 118 });
    expect(now().events.some(({ kind }) => kind === 'proved')).toBe(false);
  });

  test('a breaker that is on keeps it from being proved, and says so', async () => {
    const job = oneBox();
    Object.assign(job.events[0] ?? {}, { state: 'on' });
    await shown(job, <Proving />);
    expect(screen.getByText('Before it can be proved:')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /V/ })).toBeNull();
  });
});
