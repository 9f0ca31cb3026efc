import '@testing-library/jest-dom/jest-globals';
import type { Edit, Job } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useJob } from '../data/job-context.js';
import { dialog, press, shown } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { QuestionsTray } from './questions.js';

/** Renames the first room, and the tray in which what the server asks about waits. */
function Naming({ names }: { names: readonly string[] }) {
  const { job, apply } = useJob();
  const [room] = job.rooms;
  return (
    <>
      {names.map((name) => (
        <button
          key={name}
          type="button"
          onClick={() =>
            apply(
              [
                {
                  kind: 'room',
                  id: String(room?.id),
                  base: null,
                  set: { name: { was: room?.name ?? null, now: name } },
                },
              ],
              `Name it ${name}`,
            )
          }
        >
          Name it {name}
        </button>
      ))}
      <p>
        Now {room?.name}, {job.rooms.length} rooms
      </p>
      <QuestionsTray />
    </>
  );
}

/** The server answers the first batch of edits as the test says, and goes on as usual. */
async function asking(job: Job, answerOf: (edit: Edit) => object) {
  const scene = await shown(job, <Naming names={['Larder']} />);
  scene.server.nextAnswers.push((edits) => ({
    status: 200,
    body: { results: edits.map((edit) => ({ editId: edit.id, ...answerOf(edit) })), sequence: 0 },
  }));
  return scene;
}

const conflict = (job: Job) => (edit: Edit) => ({
  outcome: 'conflict',
  conflicts: [
    {
      part: 0,
      kind: 'room',
      id: job.rooms[0]?.id,
      field: 'name',
      was: job.rooms[0]?.name,
      theirs: 'Cold room',
      yours: edit.parts[0]?.set?.name?.now,
    },
  ],
});

describe('a question', () => {
  test('nobody has one: nothing stands in the way', async () => {
    await shown(exampleJob('pantry'), <QuestionsTray />);
    expect(screen.queryByRole('button')).toBeNull();
  });

  test('two on one fact: it waits in the tray, with what was, theirs and mine', async () => {
    const job = exampleJob('pantry');
    await asking(job, conflict(job));
    press('Name it Larder');
    fireEvent.click(await screen.findByRole('button', { name: /^1 conflict/ }));
    const said = await dialog();
    const fact = within(said).getByRole('region');
    expect(fact).toHaveTextContent(`It was${job.rooms[0]?.name}`);
    expect(fact).toHaveTextContent('TheirsCold room');
    expect(within(fact).getByLabelText('Mine')).toHaveValue('Larder');
  });

  test('theirs: mine is dropped, said by its words, and can be had back', async () => {
    const job = exampleJob('pantry');
    const { job: now } = await asking(job, conflict(job));
    press('Name it Larder');
    fireEvent.click(await screen.findByRole('button', { name: /^1 conflict/ }));
    press('Keep theirs', await dialog());
    expect(await screen.findByText(/^Dropped: .*Larder/)).toBeInTheDocument();
    expect(now().rooms[0]?.name).toBe(job.rooms[0]?.name);
    await waitFor(() => expect(screen.queryByRole('button', { name: /conflict/ })).toBeNull());
  });

  test('mine can be written anew; what cannot be recorded is said at its field', async () => {
    const job = exampleJob('pantry');
    const { job: now } = await asking(job, conflict(job));
    press('Name it Larder');
    fireEvent.click(await screen.findByRole('button', { name: /^1 conflict/ }));
    const said = await dialog();
    fireEvent.change(within(said).getByLabelText('Mine'), { target: { value: '' } });
    press('Use mine', said);
    expect(await within(said).findByRole('alert')).not.toBeEmptyDOMElement();
    expect(within(said).getByLabelText('Mine')).toHaveAttribute('aria-invalid', 'true');
    fireEvent.change(within(said).getByLabelText('Mine'), { target: { value: 'Store' } });
    press('Use mine', said);
    await waitFor(() => expect(now().rooms[0]?.name).toBe('Store'));
    expect(await screen.findByText('“Name it Larder” is recorded again.')).toBeInTheDocument();
  });

  test('an edit that was refused is a question with its reasons: dropped, or sent again', async () => {
    const job = exampleJob('pantry');
    await asking(job, () => ({
      outcome: 'refused',
      problems: [{ path: '/rooms/0/name', message: 'is too long' }],
    }));
    press('Name it Larder');
    fireEvent.click(await screen.findByRole('button', { name: /^1 question/ }));
    const said = await dialog();
    expect(said).toHaveTextContent('/rooms/0/name is too long');
    press('Drop this edit', said);
    expect(await screen.findByText(/^Dropped: /)).toBeInTheDocument();
  });
});
