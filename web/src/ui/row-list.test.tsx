import '@testing-library/jest-dom/jest-globals';
import { expect, test } from '@jest/globals';
import { fireEvent, render, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { NumberField } from './field.js';
import { RowList } from './row-list.js';

test('a row is added, typed in and taken out; what is half typed stays with its row', () => {
  function Form() {
    const [rows, setRows] = useState([{ amps: 1 }, { amps: 2 }]);
    return (
      <>
        <RowList
          title="Ratings"
          rows={rows}
          add={{ label: 'Add one', make: () => ({ amps: 0 }) }}
          onRows={setRows}
          nameOf={(_, at) => `row ${at + 1}`}
        >
          {(row, set) => <NumberField label="Amps" value={row.amps} onNumber={(amps) => set({ amps })} />}
        </RowList>
        <output>{rows.map((row) => row.amps).join()}</output>
      </>
    );
  }
  render(<Form />);
  const field = (name: string) => within(screen.getByRole('listitem', { name })).getByLabelText('Amps');
  fireEvent.click(screen.getByRole('button', { name: 'Add one' }));
  fireEvent.change(field('row 3'), { target: { value: '7' } });
  expect(screen.getByRole('status')).toHaveTextContent('1,2,7');
  fireEvent.change(field('row 2'), { target: { value: '2,' } });
  fireEvent.change(field('row 3'), { target: { value: 'seven' } });
  fireEvent.click(screen.getByRole('button', { name: 'Delete row 1' }));
  expect(screen.getByRole('status')).toHaveTextContent('2,7');
  // The slip is still where it was made, and the number before it stands.
  expect(field('row 2')).toHaveValue('seven');
});
