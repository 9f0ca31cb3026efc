import '@testing-library/jest-dom/jest-globals';
import { expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { NumberField, problemOf } from './field.js';

test.each([
  ['', null],
  ['12.5', null],
  ['12,5', null],
  ['two', 'This is not a number.'],
  ['1e999', 'This is not a number.'],
  ['-1', 'At least 0.'],
  ['101', 'At most 100.'],
])('%s: %s', (text, problem) => {
  expect(problemOf(text, { max: 100 })).toBe(problem);
});

test('whole numbers only, where asked', () => {
  expect(problemOf('1.5', { whole: true })).toBe('Only whole numbers go here.');
});

test('what is typed stays as typed; only numbers are handed on; a change from outside shows', () => {
  const taken: number[] = [];
  function Form() {
    const [value, setValue] = useState(0);
    return (
      <>
        <NumberField
          label="Depth"
          zeroIsEmpty
          value={value}
          onNumber={(number) => {
            taken.push(number);
            setValue(number);
          }}
        />
        <button type="button" onClick={() => setValue(40)}>
          undo
        </button>
      </>
    );
  }
  render(<Form />);
  const input = screen.getByLabelText('Depth') as HTMLInputElement;
  expect(input.value).toBe('');
  for (const text of ['2', '2.', '2.5', '2.5x']) fireEvent.change(input, { target: { value: text } });
  expect(input.value).toBe('2.5x');
  expect(taken).toEqual([2, 2, 2.5]);
  expect(screen.getByText('This is not a number.')).toBeInTheDocument();
  expect(input).toBeInvalid();
  expect(input).toHaveAccessibleDescription('This is not a number.');
  fireEvent.click(screen.getByText('undo'));
  expect(input.value).toBe('40');
  fireEvent.change(input, { target: { value: '' } });
  expect(taken.at(-1)).toBe(0);
  cleanup();
});
