import '@testing-library/jest-dom/jest-globals';
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { closeList, pickListed, pickRadio, press } from '../test-support/by-hand.js';
import { PickOne, PickSeveral, Segments } from './choice.js';
import { Dialog, EdgeSheet } from './dialog.js';
import { Menu } from './menu.js';
import { SayProvider, useSay } from './say.js';
import { Toggle } from './toggle.js';

afterEach(cleanup);

const OPTIONS = [
  { value: 'a', label: 'Ash' },
  { value: 'b', label: 'Birch', hint: 'white bark' },
];

describe('a choice', () => {
  test('among a few stands in sight, and one of them is taken', () => {
    const taken: string[] = [];
    render(<Segments label="Wood" value="a" options={OPTIONS} onChoice={(value) => taken.push(value)} />);
    expect(screen.getByRole('radio', { name: 'Ash' })).toBeChecked();
    pickRadio('Wood', 'Birch');
    expect(taken).toEqual(['b']);
  });

  test('of none is none: nothing is taken for what nobody said', () => {
    render(<Segments label="Wood" value={null} options={OPTIONS} onChoice={() => {}} />);
    for (const radio of screen.getAllByRole('radio')) expect(radio).not.toBeChecked();
  });

  test('among many opens below its button, with what each is', async () => {
    const taken: string[] = [];
    render(<PickOne label="Wood" value="" options={OPTIONS} onChoice={(value) => taken.push(value)} />);
    expect(screen.getByRole('button', { name: 'Wood' })).toHaveTextContent('Choose');
    fireEvent.click(screen.getByRole('button', { name: 'Wood' }));
    expect(await screen.findByRole('option', { name: /Birch/ })).toHaveTextContent('white bark');
    await closeList();
    await pickListed(/^Wood/, /Birch/);
    expect(taken).toEqual(['b']);
  });

  test('of several is ticked one by one, and taken back', async () => {
    function Several() {
      const [values, setValues] = useState<string[]>(['a']);
      return (
        <PickSeveral
          label="Woods"
          placeholder="none"
          values={values}
          options={OPTIONS}
          onChoice={setValues}
        />
      );
    }
    render(<Several />);
    const button = () => screen.getByRole('button', { name: 'Woods', hidden: true });
    expect(button()).toHaveTextContent('Ash');
    fireEvent.click(button());
    fireEvent.click(await screen.findByRole('option', { name: 'Birch' }));
    expect(button()).toHaveTextContent('Ash, Birch');
    fireEvent.click(screen.getByRole('option', { name: 'Ash' }));
    expect(button()).toHaveTextContent('Birch');
    fireEvent.click(screen.getByRole('option', { name: 'Birch' }));
    expect(button()).toHaveTextContent('none');
  });

  test('with nothing to choose from says so', async () => {
    render(<PickSeveral label="Woods" placeholder="none" values={[]} options={[]} onChoice={() => {}} />);
    fireEvent.click(screen.getByRole('button', { name: 'Woods' }));
    expect(await screen.findByText('None recorded yet.')).toBeInTheDocument();
  });

  test('of on and off', () => {
    const turned: boolean[] = [];
    render(<Toggle label="In a loop" on={false} onToggle={(on) => turned.push(on)} />);
    fireEvent.click(screen.getByRole('switch', { name: 'In a loop' }));
    expect(turned).toEqual([true]);
  });
});

describe('a menu', () => {
  test('holds what is not the main thing, behind a button with a name', async () => {
    const done: string[] = [];
    render(
      <Menu
        name="More for Ash"
        entries={[
          { label: 'Copy it', onPick: () => done.push('copy') },
          { label: 'Delete it', stop: true, onPick: () => done.push('out') },
        ]}
      />,
    );
    press('More for Ash');
    fireEvent.click(await screen.findByRole('menuitem', { name: 'Delete it' }));
    expect(done).toEqual(['out']);
    await waitFor(() => expect(screen.queryByRole('menuitem')).toBeNull());
  });
});

describe('a dialog', () => {
  test.each(['Close', 'Escape'] as const)('is left by %s', async (way) => {
    let closed = 0;
    render(
      <Dialog title="A question" open onClose={() => closed++}>
        <p>Is it so?</p>
      </Dialog>,
    );
    const dialog = await screen.findByRole('dialog', { name: 'A question' });
    if (way === 'Close') press('Close', dialog);
    else fireEvent.keyDown(dialog, { key: 'Escape' });
    expect(closed).toBe(1);
  });

  test('of the edge comes in with its title', async () => {
    render(
      <EdgeSheet title="Walk" side="left" open onClose={() => {}}>
        <p>Rooms</p>
      </EdgeSheet>,
    );
    expect(await screen.findByRole('dialog', { name: 'Walk' })).toHaveTextContent('Rooms');
  });
});

describe('what is said at the foot of the screen', () => {
  function Doing() {
    const say = useSay();
    const [undone, setUndone] = useState(false);
    return (
      <>
        <button
          type="button"
          onClick={() => say('It is out.', { label: 'Undo', run: () => setUndone(true) })}
        >
          Delete it
        </button>
        <button type="button" onClick={() => say('It is in.')}>
          Put it in
        </button>
        <p>{undone ? 'undone' : 'as it was'}</p>
      </>
    );
  }

  test('has the way back, which is gone once it was gone', () => {
    render(
      <SayProvider>
        <Doing />
      </SayProvider>,
    );
    press('Delete it');
    const said = screen.getByRole('status');
    expect(said).toHaveTextContent('It is out.');
    press('Undo', said);
    expect(screen.getByText('undone')).toBeInTheDocument();
    expect(said).toBeEmptyDOMElement();
  });

  test('is the last thing: an older way back does not outlive it', () => {
    render(
      <SayProvider>
        <Doing />
      </SayProvider>,
    );
    press('Delete it');
    press('Put it in');
    const said = screen.getByRole('status');
    expect(said).toHaveTextContent('It is in.');
    expect(within(said).queryByRole('button')).toBeNull();
  });
});
