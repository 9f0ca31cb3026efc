import { type Edition, newJob, type PracticeId, profileOf } from '@inventario/core';
import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../../data/api.js';
import { newId } from '../../data/ids.js';
import { keptStore } from '../../data/session/kept-store.js';
import { shelvedCatalogue } from '../../data/session/shelf.js';
import { paths } from '../../parts/paths.js';
import { PRACTICE_OPTIONS } from '../../parts/practice-options.js';
import { Button } from '../../ui/button.js';
import { Segments } from '../../ui/choice.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/field.js';

/** A job is made on this device, with or without a network, and brought to the server by itself. */
export function NewJobDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [name, setName] = useState('');
  const [practice, setPractice] = useState<PracticeId>('us');
  const [edition, setEdition] = useState<Edition>();
  const [problem, setProblem] = useState<string | null>(null);
  const { editions } = profileOf({ practice });
  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setProblem('Give the job a name: the house, or whose it is.');
    try {
      const job = newJob(newId(), name.trim(), practice, edition, await shelvedCatalogue());
      const kept = await keptStore()
        .write(job.id, { base: { job, sequence: 0, generation: null } })
        .then(
          () => true,
          () => false,
        );
      // A device that keeps nothing needs the server at once.
      if (!kept) await api.takeIn(job);
      await queries.invalidateQueries({ queryKey: ['kept-jobs'] });
      navigate(paths.house(job.id));
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Dialog title="New job" open={open} onClose={onClose}>
      <form onSubmit={(event) => void make(event)} className="flex flex-col gap-4">
        <TextField
          label="Name of the job"
          value={name}
          onText={setName}
          error={problem}
          maxLength={200}
          autoFocus
        />
        <Segments
          label="Practice: whose rules and words"
          value={practice}
          options={PRACTICE_OPTIONS}
          onChoice={setPractice}
        />
        {editions && (
          <Segments
            label="Edition of the code adopted here"
            value={edition ?? editions.usual}
            options={editions.known.map((value) => ({ value, label: value }))}
            onChoice={setEdition}
          />
        )}
        <Button kind="main" type="submit">
          Make the job
        </Button>
      </form>
    </Dialog>
  );
}
