import { type FormEvent, type ReactNode, useState } from 'react';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';

/** A short form over the view; what is wrong is said in it and nothing typed is lost. */
export function RecordForm({
  title,
  save,
  onSave,
  onClose,
  children,
}: {
  title: string;
  save: string;
  onSave: () => string | null;
  onClose: () => void;
  children: ReactNode;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const hindered = onSave();
    if (hindered) setProblem(hindered);
    else onClose();
  };
  return (
    <Dialog title={title} open onClose={onClose}>
      <form onSubmit={submit} className="flex flex-col gap-4">
        {children}
        {problem && (
          <p role="alert" className="text-stop">
            {problem}
          </p>
        )}
        <Button kind="main" type="submit">
          {save}
        </Button>
      </form>
    </Dialog>
  );
}
