import { JobEntry, newJob, profileOf } from '@inventario/core';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api } from '../../data/api.js';
import { newId } from '../../data/ids.js';
import { keptStore } from '../../data/session/kept-store.js';
import { shelvedCatalogue } from '../../data/session/shelf.js';
import { FormSegments, FormText } from '../../parts/form-fields.js';
import { paths } from '../../parts/paths.js';
import { PRACTICE_OPTIONS } from '../../parts/practice-options.js';
import { RecordForm, useRecordForm } from '../../parts/record-form.js';

/** A job is made on this device, with or without a network, and brought to the server by itself. */
export function NewJobDialog({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const form = useRecordForm<JobEntry>(JobEntry, { name: '', practice: 'us' });
  const { control } = form;
  const practice = form.watch('practice');
  const { editions } = profileOf({ practice });
  const make = async ({ name, edition }: JobEntry) => {
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
      return null;
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  };
  return (
    <RecordForm title="New job" save="Make the job" form={form} onSave={make} onClose={onClose}>
      <FormText control={control} name="name" label="Name of the job" maxLength={200} autoFocus />
      <FormSegments
        control={control}
        name="practice"
        label="Practice: whose rules and words"
        options={PRACTICE_OPTIONS}
      />
      {editions && (
        <FormSegments
          control={control}
          name="edition"
          label="Edition of the code adopted here"
          options={editions.known.map((value) => ({ value, label: value }))}
          usual={editions.usual}
        />
      )}
    </RecordForm>
  );
}
