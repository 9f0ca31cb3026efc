import type { Mode } from './bench-state.js';

/** How this device's user last went about a box: by test, or by labels alone. */
export function keptMode(): Mode {
  return localStorage.getItem('box-mode') === 'label' ? 'label' : 'test';
}

export function keepMode(mode: Mode): void {
  if (mode !== 'ends') localStorage.setItem('box-mode', mode);
}
