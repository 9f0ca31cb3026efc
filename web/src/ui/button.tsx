import type { LucideIcon } from 'lucide-react';
import type { ButtonHTMLAttributes, Ref } from 'react';
import { classes } from './classes.js';

const KINDS = {
  /** The one main action of a view. */
  main: 'bg-strong text-onstrong border-strong font-semibold',
  plain: 'bg-sheet text-ink border-edge hover:border-ink',
  quiet: 'bg-transparent text-ink border-transparent hover:bg-well',
  stop: 'bg-sheet text-stop border-stop',
} as const;

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  kind?: keyof typeof KINDS;
  icon?: LucideIcon;
  /** Its name for everyone when only the icon is shown. */
  iconOnly?: boolean;
  ref?: Ref<HTMLButtonElement>;
}

/** How a button looks; for links that look like one too. At least 44 px high: hit with a gloved thumb. */
export function buttonClass(kind: keyof typeof KINDS = 'plain', className?: string): string {
  return classes(
    'inline-flex min-h-11 min-w-11 items-center justify-center gap-2 rounded-md border px-3 text-base leading-tight disabled:cursor-not-allowed disabled:opacity-50',
    KINDS[kind],
    className,
  );
}

export function Button({ kind = 'plain', icon: Icon, iconOnly, children, className, ...rest }: ButtonProps) {
  return (
    <button type="button" {...rest} className={buttonClass(kind, className)}>
      {Icon && <Icon aria-hidden className="size-5 shrink-0" strokeWidth={2} />}
      {iconOnly ? <span className="sr-only">{children}</span> : children}
    </button>
  );
}
