import { JobEntry, profileOf, setParts } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import { FormNumber, FormSegments, FormText } from '../../parts/form-fields.js';
import { PRACTICE_OPTIONS } from '../../parts/practice-options.js';
import { RecordForm, useRecordForm } from '../../parts/record-form.js';

export function JobDialog({ onClose }: { onClose: () => void }) {
  const { job, attempt } = useJob();
  const { name, practice, edition, client, address, notes, site } = job;
  const form = useRecordForm(JobEntry, { name, practice, edition, client, address, notes, site });
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
      <FormText
        control={control}
        name="site.timeZone"
        label="Time zone"
        hint="Such as Europe/London: the clock of its rules"
        maxLength={60}
        emptyIsUntold
      />
      <div className="grid grid-cols-2 gap-3">
        <FormNumber
          control={control}
          name="site.latitude"
          label="Latitude"
          unit="°"
          min={-90}
          max={90}
          emptyIsUntold
        />
        <FormNumber
          control={control}
          name="site.longitude"
          label="Longitude"
          unit="°"
          min={-180}
          max={180}
          emptyIsUntold
        />
      </div>
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
