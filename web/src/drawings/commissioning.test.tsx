import '@testing-library/jest-dom/jest-globals';
import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { IndicatorLight } from './indicator-light.js';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});

/** Whether motion is wanted, as the browser would say. */
function motion(wanted: boolean) {
  jest.spyOn(globalThis, 'matchMedia').mockImplementation(
    () =>
      ({
        matches: !wanted,
        addEventListener: () => undefined,
        removeEventListener: () => undefined,
      }) as unknown as MediaQueryList,
  );
}

describe('the light of a device', () => {
  test('two colours take turns, and are said', () => {
    motion(true);
    const { container } = render(<IndicatorLight light={{ colours: ['amber', 'green'], rhythm: 'slow' }} />);
    expect(screen.getByRole('img', { name: 'The light: amber and green, slow' })).toBeInTheDocument();
    const animate = container.querySelector('animate');
    expect(animate?.getAttribute('values')).toBe('#ffb000;#21c45d;#ffb000');
    expect(animate?.getAttribute('dur')).toBe('4s');
  });

  test('one colour goes dark between; twice and a pause has its pause', () => {
    motion(true);
    const { container, rerender } = render(<IndicatorLight light={{ colours: ['red'], rhythm: 'quick' }} />);
    expect(container.querySelector('animate')?.getAttribute('values')).toBe('#e5322d;#2a2f36;#e5322d');
    rerender(<IndicatorLight light={{ colours: ['red'], rhythm: 'twice' }} />);
    expect(container.querySelector('animate')?.getAttribute('values')?.split(';')).toHaveLength(7);
  });

  test('steady, or where motion is not wanted, nothing moves: the colours stand side by side', () => {
    motion(false);
    const { container, rerender } = render(
      <IndicatorLight light={{ colours: ['blue', 'white'], rhythm: 'slow' }} />,
    );
    expect(container.querySelector('animate')).toBeNull();
    expect(container.querySelectorAll('circle')).toHaveLength(2);
    rerender(<IndicatorLight light={{ colours: ['green'], rhythm: 'steady' }} />);
    expect(container.querySelectorAll('circle')).toHaveLength(1);
  });
});
