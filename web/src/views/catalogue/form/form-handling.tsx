import { useJob } from '../../../data/job-context.js';
import { PickOne } from '../../../ui/choice.js';
import { NumberField, TextField } from '../../../ui/field.js';
import { RowList } from '../../../ui/row-list.js';
import { type Section, wordsOf } from './form-parts.js';
import { deviceSettings, pairingSteps } from './pairing-steps.js';

export function Handling({ device, set }: Section) {
  const { job } = useJob();
  return (
    <>
      <RowList
        title="Pairing, step by step"
        rows={pairingSteps(device).map((text) => ({ text }))}
        add={{ label: 'Add a step', make: () => ({ text: '' }) }}
        onRows={(rows) => set({ pairing: { ...device.pairing, steps: rows.map((row) => row.text) } })}
        nameOf={(_, at) => `step ${at + 1}`}
      >
        {(row, change, at) => (
          <TextField
            label={`Step ${at + 1}`}
            value={row.text}
            onText={(text) => change({ text })}
            boxClass="col-span-2 sm:col-span-4"
          />
        )}
      </RowList>
      <RowList
        title="Settings"
        rows={deviceSettings(device)}
        add={{ label: 'Add a setting', make: () => ({ name: '', values: '' }) }}
        onRows={(rows) =>
          set({ settings: rows.map((row) => ({ name: row.name, values: wordsOf(row.values) })) })
        }
        nameOf={(row) => row.name || 'a setting'}
      >
        {(row, change) => (
          <>
            <TextField
              label="Setting"
              value={row.name}
              onText={(name) => change({ name })}
              boxClass="col-span-2"
            />
            <TextField
              label="Can be, with commas"
              value={row.values}
              onText={(values) => change({ values })}
              boxClass="col-span-2"
            />
          </>
        )}
      </RowList>
      <RowList
        title="In the package"
        rows={device.includes ?? []}
        add={{ label: 'Add a part', make: () => ({ partId: job.catalogue.parts[0]?.id ?? '', count: 1 }) }}
        onRows={(includes) => set({ includes })}
        nameOf={(row) => job.catalogue.parts.find((part) => part.id === row.partId)?.name ?? 'a part'}
      >
        {(row, change) => (
          <>
            <PickOne
              label="Part"
              className="col-span-2"
              value={row.partId}
              options={job.catalogue.parts.map((part) => ({ value: part.id, label: part.name }))}
              onChoice={(partId) => change({ partId })}
            />
            <NumberField
              label="How many"
              whole
              value={row.count ?? 1}
              onNumber={(count) => change({ count })}
            />
          </>
        )}
      </RowList>
      <TextField
        label="Notes"
        value={device.notes ?? ''}
        onText={(notes) => set({ notes: notes || undefined })}
      />
    </>
  );
}
