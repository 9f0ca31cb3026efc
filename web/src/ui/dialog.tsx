import { DialogPanel, DialogTitle, Dialog as HeadlessDialog } from '@headlessui/react';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from './button.js';
import { classes } from './classes.js';

interface DialogProps {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}

/** A question or a short form over the view. */
export function Dialog(props: DialogProps) {
  return <Panel {...props} width="max-w-xl" />;
}

/** A table or a long form over the view. */
export function WideDialog(props: DialogProps) {
  return <Panel {...props} width="max-w-5xl" />;
}

function Panel({ title, open, onClose, children, width }: DialogProps & { width: string }) {
  return (
    <HeadlessDialog open={open} onClose={onClose} className="relative z-40">
      <div className="fixed inset-0 bg-black/50" aria-hidden />
      <div className="fixed inset-0 flex items-end justify-center overflow-y-auto p-2 sm:items-center sm:p-6">
        <DialogPanel
          className={classes(
            'max-h-full w-full overflow-y-auto rounded-lg border border-rule bg-ground p-4 shadow-xl',
            width,
          )}
        >
          <div className="mb-3 flex items-center justify-between gap-4">
            <DialogTitle className="text-lg font-bold">{title}</DialogTitle>
            <Button kind="quiet" icon={X} iconOnly onClick={onClose}>
              Close
            </Button>
          </div>
          {children}
        </DialogPanel>
      </div>
    </HeadlessDialog>
  );
}

/** What comes in from an edge of a phone's screen: the walk from the left, the reckoning from the right. */
export function EdgeSheet({
  title,
  side,
  open,
  onClose,
  children,
}: {
  title: string;
  side: 'left' | 'right';
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <HeadlessDialog open={open} onClose={onClose} className="relative z-40">
      <div className="fixed inset-0 bg-black/50" aria-hidden />
      <DialogPanel
        className={classes(
          'fixed inset-y-0 flex w-[min(22rem,92vw)] flex-col overflow-y-auto border-rule bg-ground shadow-xl',
          side === 'left' ? 'left-0 border-r' : 'right-0 border-l',
        )}
      >
        <div className="flex items-center justify-between gap-4 px-3 pt-2">
          <DialogTitle className="text-lg font-bold">{title}</DialogTitle>
          <Button kind="quiet" icon={X} iconOnly onClick={onClose}>
            Close
          </Button>
        </div>
        {children}
      </DialogPanel>
    </HeadlessDialog>
  );
}
