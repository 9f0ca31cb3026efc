import '@testing-library/jest-dom/jest-globals';
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { z } from 'zod';
import { pickRadio, press, type } from '../test-support/by-hand.js';
import { FormNumber, FormSegments, FormText, FormToggle, FormYesNo } from './form-fields.js';
import { FormProblems, RecordForm, useCheckedForm, useRecordForm } from './record-form.js';

afterEach(cleanup);

const Lamp = z.object({
  name: z.string().min(1, { error: 'Give it a name.' }),
  watts: z.number().gt(0, { error: 'More than none.' }),
  leg: z.enum(['A', 'B']).optional(),
  dimmable: z.boolean().optional(),
  spare: z.boolean().optional(),
  note: z.string().optional(),
});
type Lamp = z.infer<typeof Lamp>;

function LampForm({
  lamp,
  save = () => null,
  onClose = () => {},
}: {
  lamp: Lamp;
  save?: (lamp: Lamp) => string | null;
  onClose?: () => void;
}) {
  const form = useRecordForm(Lamp, lamp);
  const { control } = form;
  return (
    <RecordForm title="A lamp" save="Keep it" form={form} onSave={save} onClose={onClose}>
      <FormText control={control} name="name" label="Name" />
      <FormText control={control} name="note" label="Note" emptyIsUntold />
      <FormNumber control={control} name="watts" label="Watts" unit="W" max={100} />
      <FormSegments
        control={control}
        name="leg"
        label="Leg"
        options={[
          { value: 'A', label: 'A' },
          { value: 'B', label: 'B' },
        ]}
        untold="not told"
      />
      <FormYesNo control={control} name="dimmable" label="Dimmable" />
      <FormToggle control={control} name="spare" label="Spare" />
    </RecordForm>
  );
}

const plain: Lamp = { name: 'Reading lamp', watts: 9 };

describe('a form over a record', () => {
  test('keeps what was typed and closes', async () => {
    const kept: Lamp[] = [];
    let closed = 0;
    render(
      <LampForm
        lamp={plain}
        save={(lamp) => {
          kept.push(lamp);
          return null;
        }}
        onClose={() => closed++}
      />,
    );
    type('Name', 'Bed lamp');
    type('Watts', '4.5');
    pickRadio('Leg', 'B');
    pickRadio('Dimmable', 'no');
    fireEvent.click(screen.getByRole('switch', { name: 'Spare' }));
    press('Keep it');
    await waitFor(() => expect(closed).toBe(1));
    expect(kept).toEqual([{ name: 'Bed lamp', watts: 4.5, leg: 'B', dimmable: false, spare: true }]);
  });

  test('what nobody looked at is untold, and an answer can become untold again', async () => {
    const kept: Lamp[] = [];
    render(
      <LampForm
        lamp={{ ...plain, leg: 'A', dimmable: true, note: 'by the bed' }}
        save={(lamp) => {
          kept.push(lamp);
          return null;
        }}
      />,
    );
    pickRadio('Leg', 'not told');
    pickRadio('Dimmable', 'not told');
    type('Note', '');
    for (const group of ['Leg', 'Dimmable']) {
      const radios = within(screen.getByRole('radiogroup', { name: group }));
      expect(radios.getByRole('radio', { name: 'not told' })).toBeChecked();
    }
    press('Keep it');
    await waitFor(() => expect(kept).toHaveLength(1));
    expect(JSON.parse(JSON.stringify(kept[0]))).toEqual(plain);
  });

  test('what is wrong stands at its field, and goes when it is right', async () => {
    render(<LampForm lamp={{ ...plain, name: '' }} />);
    press('Keep it');
    expect(await screen.findByText('Give it a name.')).toBeInTheDocument();
    expect(screen.getByLabelText('Name')).toHaveAttribute('aria-invalid', 'true');
    type('Name', 'B');
    await waitFor(() => expect(screen.queryByText('Give it a name.')).toBeNull());
  });

  test.each(['many', '', '101', '-1'])(
    '“%s” is no number of watts: the nine before it are not kept instead',
    async (text) => {
      const kept: Lamp[] = [];
      render(
        <LampForm
          lamp={plain}
          save={(lamp) => {
            kept.push(lamp);
            return null;
          }}
        />,
      );
      type('Watts', text);
      press('Keep it');
      await waitFor(() => expect(screen.getByLabelText('Watts')).toHaveAttribute('aria-invalid', 'true'));
      expect(kept).toEqual([]);
      expect(screen.getByLabelText('Watts')).toHaveValue(text);
    },
  );

  test('what hinders the edit is said below, and nothing typed is lost', async () => {
    let closed = false;
    render(
      <LampForm
        lamp={plain}
        save={() => 'Somebody took the room out.'}
        onClose={() => {
          closed = true;
        }}
      />,
    );
    type('Name', 'Bed lamp');
    press('Keep it');
    expect(await screen.findByRole('alert')).toHaveTextContent('Somebody took the room out.');
    expect(screen.getByLabelText('Name')).toHaveValue('Bed lamp');
    expect(closed).toBe(false);
  });
});

describe('a form that a check looks at as a whole', () => {
  function Checked({ kept }: { kept: object[] }) {
    const form = useCheckedForm<{ name: string; ends: number[] }>({ name: 'x', ends: [1, 2] }, ({ name }) =>
      name === 'x'
        ? [
            { path: '/name', message: 'is taken' },
            { path: '/ends/1', message: 'names nothing' },
          ]
        : [],
    );
    const problems = Object.entries(form.formState.errors);
    return (
      <RecordForm
        title="Checked"
        save="Keep it"
        form={form}
        onSave={(values) => {
          kept.push(values);
          return null;
        }}
        onClose={() => {}}
      >
        <FormText control={form.control} name="name" label="Name" />
        <FormProblems problems={problems.filter(([key]) => key !== 'name')} />
      </RecordForm>
    );
  }

  test('says each problem at its path, and what has no field in a list', async () => {
    const kept: object[] = [];
    render(<Checked kept={kept} />);
    press('Keep it');
    expect(await screen.findByText('is taken')).toBeInTheDocument();
    expect(screen.getByText('/ends/1').parentElement).toHaveTextContent('/ends/1 names nothing');
    expect(kept).toEqual([]);
    type('Name', 'y');
    press('Keep it');
    await waitFor(() => expect(kept).toEqual([{ name: 'y', ends: [1, 2] }]));
  });
});
