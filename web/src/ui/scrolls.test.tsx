import '@testing-library/jest-dom/jest-globals';
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { Scrolls } from './scrolls.js';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});

/** What a browser would have laid out. */
function laidOut(content: number, place: number): void {
  jest.spyOn(HTMLElement.prototype, 'scrollWidth', 'get').mockReturnValue(content);
  jest.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(place);
}

test('the keyboard comes to it where it scrolls, and nowhere else', () => {
  laidOut(600, 320);
  render(
    <Scrolls label="Side by side" className="overflow-x-auto">
      wide
    </Scrolls>,
  );
  expect(screen.getByRole('region', { name: 'Side by side' })).toHaveAttribute('tabindex', '0');
  cleanup();
  laidOut(320, 320);
  render(
    <Scrolls label="Side by side" className="overflow-x-auto">
      narrow
    </Scrolls>,
  );
  expect(screen.getByRole('region', { name: 'Side by side' })).not.toHaveAttribute('tabindex');
});
