import '@testing-library/jest-dom/jest-globals';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { PreferencesProvider } from '../data/preferences.js';
import { ShortcutHelp, useShortcuts } from './shortcuts.js';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

function keysPressed(): string[] {
  const run: string[] = [];
  function Listening() {
    useShortcuts({
      b: () => run.push('b'),
      ArrowRight: () => run.push('ArrowRight'),
      'mod+z': () => run.push('undo'),
    });
    return (
      <>
        <input aria-label="Name" />
        <ShortcutHelp open onClose={() => {}} />
      </>
    );
  }
  render(
    <PreferencesProvider>
      <Listening />
    </PreferencesProvider>,
  );
  return run;
}

const pressAll = (at: HTMLElement) => {
  fireEvent.keyDown(at, { key: 'b' });
  fireEvent.keyDown(at, { key: 'ArrowRight' });
  fireEvent.keyDown(at, { key: 'z', ctrlKey: true });
};

test('single letters can be switched off, and stay off; keys with a name and with Ctrl go on', () => {
  const run = keysPressed();
  pressAll(document.body);
  expect(run.splice(0)).toEqual(['b', 'ArrowRight', 'undo']);
  fireEvent.click(screen.getByRole('switch', { name: 'Single letters act' }));
  pressAll(document.body);
  expect(run.splice(0)).toEqual(['ArrowRight', 'undo']);
  cleanup();
  const later = keysPressed();
  pressAll(document.body);
  expect(later).toEqual(['ArrowRight', 'undo']);
});

test('in a field they are what is typed', () => {
  const run = keysPressed();
  pressAll(screen.getByLabelText('Name'));
  expect(run).toEqual([]);
});
