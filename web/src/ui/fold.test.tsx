import '@testing-library/jest-dom/jest-globals';
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { Fold } from './fold.js';

afterEach(cleanup);

function line(isComplete: boolean) {
  return (
    <>
      <Fold title="Enclosure" says="1 gang" isComplete={isComplete}>
        <input aria-label="Depth" />
      </Fold>
      <button type="button">elsewhere</button>
    </>
  );
}
const head = () => screen.getByRole('button', { name: /^Enclosure/ });
const isOpen = () => head().getAttribute('aria-expanded') === 'true';

test('one line, opened at a touch and closed by another', () => {
  render(line(false));
  expect(isOpen()).toBe(false);
  expect(head()).toHaveTextContent('1 gang');
  fireEvent.click(head());
  expect(screen.getByLabelText('Depth')).toBeInTheDocument();
  fireEvent.click(head());
  expect(screen.queryByLabelText('Depth')).toBeNull();
});

test('what has become complete closes by itself, but never over a field that is being typed in', () => {
  const { rerender } = render(line(false));
  fireEvent.click(head());
  const field = screen.getByLabelText('Depth');
  field.focus();
  rerender(line(true));
  expect(isOpen()).toBe(true);
  act(() => screen.getByRole('button', { name: 'elsewhere' }).focus());
  expect(isOpen()).toBe(false);
});

test('while a list that stands elsewhere in the page has the keyboard it stays open', () => {
  const withList = (isComplete: boolean) => (
    <>
      {line(isComplete)}
      <div role="listbox" tabIndex={0} aria-label="Plate">
        glass
      </div>
    </>
  );
  const { rerender } = render(withList(false));
  fireEvent.click(head());
  act(() => screen.getByLabelText('Depth').focus());
  act(() => screen.getByRole('listbox').focus());
  rerender(withList(true));
  expect(isOpen()).toBe(true);
  act(() => screen.getByLabelText('Depth').focus());
  act(() => screen.getByRole('button', { name: 'elsewhere' }).focus());
  expect(isOpen()).toBe(false);
});

test('it does not move away from under a finger that is pressing something below', async () => {
  const { rerender } = render(line(false));
  fireEvent.click(head());
  screen.getByLabelText('Depth').focus();
  rerender(line(true));
  const below = screen.getByRole('button', { name: 'elsewhere' });
  fireEvent.pointerDown(below);
  act(() => below.focus());
  expect(isOpen()).toBe(true);
  fireEvent.pointerUp(below);
  fireEvent.click(below);
  await act(() => new Promise((done) => setTimeout(done, 0)));
  expect(isOpen()).toBe(false);
});

test('complete from the start it stays as one opens it', () => {
  render(line(true));
  fireEvent.click(head());
  expect(isOpen()).toBe(true);
});
