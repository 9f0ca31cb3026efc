import { Menu as HeadlessMenu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Ellipsis, type LucideIcon } from 'lucide-react';
import type { ReactNode } from 'react';
import { classes } from './classes.js';

export interface MenuEntry {
  label: string;
  icon?: LucideIcon;
  stop?: boolean;
  onPick: () => void;
}

/** Actions that are not the main one, behind a button. */
export function Menu({
  name,
  entries,
  button,
  buttonClass,
  icon: Icon = Ellipsis,
}: {
  name: string;
  icon?: LucideIcon;
  entries: readonly MenuEntry[];
  button?: ReactNode;
  buttonClass?: string;
}) {
  return (
    <HeadlessMenu>
      <MenuButton
        aria-label={button ? undefined : name}
        className={classes(
          'inline-flex min-h-11 min-w-11 items-center justify-center gap-2 rounded-md border border-transparent px-2 hover:bg-well',
          buttonClass,
        )}
      >
        {button ?? <Icon aria-hidden className="size-5" />}
      </MenuButton>
      <MenuItems
        anchor={{ to: 'bottom end', gap: 4, padding: 8 }}
        className="z-50 min-w-48 rounded-md border border-rule bg-sheet py-1 shadow-lg focus:outline-none"
      >
        {entries.map(({ label, icon: Picture, stop, onPick }) => (
          <MenuItem key={label}>
            <button
              type="button"
              onClick={onPick}
              className={classes(
                'flex min-h-11 w-full items-center gap-2 px-3 text-left data-focus:bg-well',
                stop && 'text-stop',
              )}
            >
              {Picture && <Picture aria-hidden className="size-5" />}
              {label}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </HeadlessMenu>
  );
}
