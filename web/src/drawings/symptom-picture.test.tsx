import '@testing-library/jest-dom/jest-globals';
import { SYMPTOM_KINDS, SYMPTOMS } from '@inventario/core';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render } from '@testing-library/react';
import { SymptomPicture } from './symptom-picture.js';

afterEach(cleanup);

test.each(SYMPTOM_KINDS)('%s: each value is drawn, and no two alike', (kind) => {
  const drawn = SYMPTOMS[kind].map((value) => {
    const { container } = render(<SymptomPicture kind={kind} value={value} />);
    const shapes = container.querySelector('svg g')?.innerHTML ?? '';
    expect([kind, value, shapes.length > 10]).toEqual([kind, value, true]);
    cleanup();
    return shapes;
  });
  expect(new Set(drawn).size).toBe(drawn.length);
});

test('it is told by shape alone, and says nothing of its own', () => {
  const { container } = render(<SymptomPicture kind="load" value="follows" />);
  const picture = container.querySelector('svg');
  expect(picture).toHaveAttribute('aria-hidden', 'true');
  for (const shape of container.querySelectorAll('[stroke], [fill]'))
    expect(['none', 'currentColor', null]).toContain(shape.getAttribute('stroke'));
  expect(picture?.textContent).toBe('');
});
