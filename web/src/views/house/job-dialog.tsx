import { type Job, profileOf, setParts } from '@inventario/core';
import { useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { PRACTICE_OPTIONS } from '../../parts/practice-options.js';
import { RecordForm } from '../../parts/record-form.js';
import { Segments } from '../../ui/choice.js';
import { TextField } from '../../ui/field.js';

type Header = Pick<Job, 'name' | 'practice' | 'edition' | 'client' | 'address' | 'notes'>;

export function JobDialog({ onClose }: { onClose: () => void }) {
  const { job, attempt } = useJob();
  const [header, setHeader] = useState<Header>(job);
  const change = (more: Partial<Header>) => setHeader({ ...header, ...more });
  const save = () => {
    if (header.name.trim() === '') return 'Give the job a name.';
    const { name, practice, edition, client, address, notes } = header;
    return attempt(
      setParts('job', job.id, job, { name, practice, edition, client, address, notes }),
      'Change the job',
    );
  };
  const { editions } = profileOf(header);
  return (
    <RecordForm title="The job" save="Keep the change" onSave={save} onClose={onClose}>
      <TextField
        label="Name"
        value={header.name}
        onText={(name) => change({ name })}
        maxLength={200}
        autoFocus
      />
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label="Client"
          value={header.client?.name ?? ''}
          onText={(name) => change({ client: { ...header.client, name } })}
          maxLength={100}
        />
        <TextField
          label="Contact"
          value={header.client?.contact ?? ''}
          onText={(contact) => change({ client: { ...header.client, contact } })}
          maxLength={200}
        />
      </div>
      <TextField
        label="Address"
        value={header.address ?? ''}
        onText={(address) => change({ address })}
        maxLength={400}
      />
      <Segments
        label="Practice"
        value={header.practice}
        options={PRACTICE_OPTIONS}
        onChoice={(practice) => change({ practice })}
      />
      {editions && (
        <Segments
          label="Edition"
          value={header.edition ?? editions.usual}
          options={editions.known.map((value) => ({ value, label: value }))}
          onChoice={(edition) => change({ edition })}
        />
      )}
    </RecordForm>
  );
}
