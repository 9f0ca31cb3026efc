import { JobEntry, profileOf, setParts } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import { FormSegments, FormText } from '../../parts/form-fields.js';
import { PRACTICE_OPTIONS } from '../../parts/practice-options.js';
import { RecordForm, useRecordForm } from '../../parts/record-form.js';

export function JobDialog({ onClose }: { onClose: () => void }) {
  const { job, attempt } = useJob();
  const { name, practice, edition, client, address, notes } = job;
  const form = useRecordForm(JobEntry, { name, practice, edition, client, address, notes });
  const { control } = form;
  const { editions } = profileOf({ practice: form.watch('practice') });
  return (
    <RecordForm
      title="Job details"
      save="Done"
      form={form}
      onSave={(header) => attempt(setParts('job', job.id, job, header), 'Change the job')}
      onClose={onClose}
    >
      <FormText control={control} name="name" label="Name" maxLength={200} autoFocus />
      <div className="grid grid-cols-2 gap-3">
        <FormText control={control} name="client.name" label="Client" maxLength={100} />
        <FormText control={control} name="client.contact" label="Contact" maxLength={200} />
      </div>
      <FormText control={control} name="address" label="Address" maxLength={400} emptyIsUntold />
      <FormSegments control={control} name="practice" label="Practice" options={PRACTICE_OPTIONS} />
      {editions && (
        <FormSegments
          control={control}
          name="edition"
          label="Edition"
          options={editions.known.map((value) => ({ value, label: value }))}
          usual={editions.usual}
        />
      )}
    </RecordForm>
  );
}
