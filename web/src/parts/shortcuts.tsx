import { useEffect, useRef } from 'react';
import { usePreferences } from '../data/preferences.js';
import { Dialog } from '../ui/dialog.js';
import { Toggle } from '../ui/toggle.js';

export type Shortcuts = Readonly<Record<string, () => void>>;

/**
 * Keys that act while nothing is being typed. `mod+z` is Ctrl or Command. Single letters can be switched off.
 */
export function useShortcuts(shortcuts: Shortcuts): void {
  const { singleKeys } = usePreferences();
  const letters = useRef(singleKeys);
  letters.current = singleKeys;
  const current = useRef(shortcuts);
  current.current = shortcuts;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.altKey || event.defaultPrevented) return;
      const target = event.target as HTMLElement;
      const typing =
        target.closest(
          'input, textarea, select, [contenteditable], [role="listbox"], [role="menu"], [role="dialog"]',
        ) !== null;
      // Arrows choose within a row of options; letters mean nothing there.
      const choosing = event.key.length > 1 && target.closest('[role="radiogroup"]') !== null;
      const mod = event.ctrlKey || event.metaKey;
      const shift = mod && event.shiftKey ? 'shift+' : '';
      const pressed = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      const key = `${mod ? 'mod+' : ''}${shift}${pressed}`;
      if (!mod && key.length === 1 && !letters.current) return;
      const run = current.current[key];
      if (!run || ((typing || choosing) && !mod) || (mod && target.closest('input, textarea'))) return;
      event.preventDefault();
      run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

const LISTED: [string, string][] = [
  ['Ctrl Z', 'undo the last edit'],
  ['Ctrl Y', 'redo what was undone'],
  ['B', 'board'],
  ['← →', 'conductor to the left, to the right'],
  ['L S N G', 'the conductor in hand is line, load, neutral, ground'],
  ['O W', 'line on to elsewhere, line from another switch'],
  ['1 2', 'traveler 1, traveler 2'],
  ['X', 'spare'],
  ['U', 'not labelled'],
  ['E', 'edit the conductor in hand'],
  ['Esc', 'put it down'],
  ['?', 'this list'],
];

export function ShortcutHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { singleKeys, setSingleKeys } = usePreferences();
  return (
    <Dialog title="Keys" open={open} onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
        {LISTED.map(([keys, does]) => (
          <div key={keys} className="contents">
            <dt className="font-mono font-semibold">{keys}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-4 mb-2 text-sm text-soft">They act while nothing is being typed.</p>
      <Toggle label="Single letters act" on={singleKeys} onToggle={setSingleKeys} />
    </Dialog>
  );
}
