import '@testing-library/jest-dom/jest-globals';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { NumberPad } from './number-pad.js';

let entered: number[] = [];
beforeEach(() => {
  entered = [];
  render(
    <NumberPad
      label="Voltage"
      unit="V"
      most={320}
      tooMuch="Nothing here shows more than 320 V."
      onEnter={(value) => entered.push(value)}
    />,
  );
});
afterEach(cleanup);

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const shown = () => screen.getByRole('textbox', { name: 'Voltage, V' });

test('a number is typed on large keys and recorded once', () => {
  for (const key of ['1', '1', '8', '.', '.', '6']) press(key);
  expect(shown()).toHaveValue('118.6');
  press('Record 118.6 V');
  expect(entered).toEqual([118.6]);
  expect(shown()).toHaveValue('');
});

test('the last digit comes back; nothing typed is nothing recorded', () => {
  press('7');
  press('Take the last digit back');
  expect(screen.getByRole('button', { name: 'Record' })).toBeDisabled();
  fireEvent.keyDown(shown(), { key: 'Enter' });
  expect(entered).toEqual([]);
});

test('more than can be shown is refused with the reason, and stays to be corrected', () => {
  fireEvent.change(shown(), { target: { value: '99999' } });
  expect(screen.getByRole('alert')).toHaveTextContent('Nothing here shows more than 320 V.');
  expect(shown()).toHaveAccessibleDescription('Nothing here shows more than 320 V.');
  fireEvent.keyDown(shown(), { key: 'Enter' });
  expect(entered).toEqual([]);
  expect(shown()).toHaveValue('99999');
});

test('letters and signs are not taken', () => {
  for (const value of ['-3', '1e9', 'abc']) fireEvent.change(shown(), { target: { value } });
  expect(shown()).toHaveValue('');
});
