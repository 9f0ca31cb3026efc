import {
  type CatalogueList,
  type JobRecord,
  minorOf,
  moneyAmount,
  moneyText,
  namedStill,
  recordKey,
  removePart,
  takeIn,
} from '@inventario/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { FormProblems, RecordForm, useCheckedForm } from '../../parts/record-form.js';
import { Button } from '../../ui/button.js';
import { PickOne, PickSeveral } from '../../ui/choice.js';
import { DataTable, type TableColumn } from '../../ui/data-table.js';
import { NumberField, TextField } from '../../ui/field.js';
import { useSay } from '../../ui/say.js';
import { Toggle } from '../../ui/toggle.js';
import { freshRecord, kindOf, nameOfRecord, RECORD_FIELDS, type RecordField } from './record-fields.js';

type PlainList = Exclude<CatalogueList, 'devices'>;
type Plain = Record<string, unknown>;

interface KeyedRecord {
  record: Plain;
  key: string;
}

/** Hubs, parts, connectors, enclosures or assistants of the job, each with its form. */
export function RecordList({ list }: { list: PlainList }) {
  const { job, applyAndSay } = useJob();
  const say = useSay();
  const [editing, setEditing] = useState<{ record: Plain; known: boolean } | null>(null);
  const records = job.catalogue[list] as unknown as Plain[];
  const rows = records.map((record, at) => ({
    record,
    key: recordKey(kindOf(list), record as JobRecord, at),
  }));
  const remove = ({ record, key }: KeyedRecord) => {
    const [named] = namedStill(job, list, key);
    if (named) {
      say(`${nameOfRecord(record)} is still named at ${named.path}.`);
      return;
    }
    const name = nameOfRecord(record);
    applyAndSay([removePart(kindOf(list), key)], `Delete ${name}`, `${name} is deleted.`);
  };
  const columns: TableColumn<KeyedRecord>[] = [
    {
      id: 'record',
      head: 'Name',
      names: true,
      value: ({ record }) => nameOfRecord(record),
      cell: ({ record }) => (
        <button
          type="button"
          className="flex min-h-11 w-full flex-wrap items-baseline gap-x-3 py-1 text-left"
          onClick={() => setEditing({ record, known: true })}
        >
          <span className="font-semibold underline">{nameOfRecord(record)}</span>
          <span className="text-sm text-soft">{briefly(list, record)}</span>
        </button>
      ),
    },
    {
      id: 'price',
      head: 'Price',
      align: 'right',
      value: ({ record }) => Number(record.price ?? -1),
      cell: ({ record }) =>
        typeof record.price === 'number' ? moneyText(record.price, job.money?.currency) : '',
    },
    {
      id: 'out',
      head: 'Delete',
      hideHead: true,
      className: 'w-11',
      cell: (row) => (
        <Button kind="quiet" icon={Trash2} iconOnly onClick={() => remove(row)}>
          Delete {nameOfRecord(row.record)}
        </Button>
      ),
    },
  ];
  return (
    <>
      <Button icon={Plus} onClick={() => setEditing({ record: freshRecord(list, newId()), known: false })}>
        Add one
      </Button>
      <div className="mt-3 max-w-4xl">
        <DataTable
          label={list}
          rows={rows}
          columns={columns}
          idOf={({ key }) => key}
          nameOf={({ record }) => nameOfRecord(record)}
        />
      </div>
      {editing && (
        <PlainForm
          list={list}
          record={editing.record}
          known={editing.known}
          onClose={() => setEditing(null)}
        />
      )}
    </>
  );
}

function briefly(list: PlainList, record: Plain): string {
  return RECORD_FIELDS[list]
    .filter((field) => !['id', 'name', 'price'].includes(field.key) && record[field.key] !== undefined)
    .map((field) => {
      const value = record[field.key];
      if (field.kind === 'yes-no') return value ? field.label.toLowerCase() : '';
      const text = Array.isArray(value) ? value.join(field.kind === 'range' ? ' to ' : ', ') : String(value);
      return field.unit ? `${text} ${field.unit}` : text;
    })
    .filter(Boolean)
    .join('; ');
}

function PlainForm({
  list,
  record: first,
  known,
  onClose,
}: {
  list: PlainList;
  record: Plain;
  known: boolean;
  onClose: () => void;
}) {
  const { job, attempt } = useJob();
  const form = useCheckedForm<Plain>(first, (record) => {
    if ('name' in record && String(record.name).trim() === '')
      return [{ path: '/name', message: 'Give it a name.' }];
    const taken = takeIn({ [list]: [record] }, job);
    return taken.ok
      ? []
      : taken.problems.map(({ path, message }) => ({
          path: path.replace(/^\/catalogue\/\w+\/\d+/, ''),
          message,
        }));
  });
  const record = form.watch();
  const save = (made: Plain) => {
    const taken = takeIn({ [list]: [made] }, job);
    return taken.ok ? attempt(taken.parts, `Catalogue: ${nameOfRecord(made)}`) : null;
  };
  const set = (key: string, value: unknown) => {
    form.setValue(key, value);
    // A volume is given once, in mL or in cubic inches.
    if (value !== undefined && key === 'mL') form.setValue('in3', undefined);
    if (value !== undefined && key === 'in3') form.setValue('mL', undefined);
  };
  const problems = Object.entries(form.formState.errors).filter(([key]) => key !== 'root');
  return (
    <RecordForm
      title={known ? nameOfRecord(first) : 'A new record'}
      save="Keep it"
      form={form}
      onSave={save}
      onClose={onClose}
    >
      <div className="grid grid-cols-2 gap-3">
        {RECORD_FIELDS[list]
          // The id names the record for good; for a known one it stays, as does an assistant's name.
          .filter(
            (field) => !(known && (field.key === 'id' || (list === 'platforms' && field.key === 'name'))),
          )
          .map((field) => (
            <FieldOf
              key={field.key}
              field={field}
              value={record[field.key]}
              onValue={(value) => set(field.key, value)}
            />
          ))}
      </div>
      <FormProblems problems={problems} />
    </RecordForm>
  );
}

function FieldOf({
  field,
  value,
  onValue,
}: {
  field: RecordField;
  value: unknown;
  onValue: (value: unknown) => void;
}) {
  const { job } = useJob();
  switch (field.kind) {
    case 'text':
      return (
        <TextField
          label={field.label}
          value={String(value ?? '')}
          onText={(text) =>
            onValue(text === '' && field.key !== 'name' && field.key !== 'kind' ? undefined : text)
          }
          maxLength={200}
        />
      );
    case 'money':
      return (
        <NumberField
          label={field.label}
          unit={job.money?.currency ?? ''}
          value={typeof value === 'number' ? moneyAmount(value, job.money?.currency) : undefined}
          onNumber={(amount) => onValue(minorOf(amount, job.money?.currency))}
        />
      );
    case 'number':
    case 'whole':
      return (
        <NumberField
          label={field.label}
          unit={field.unit ?? ''}
          whole={field.kind === 'whole'}
          value={typeof value === 'number' ? value : undefined}
          onNumber={onValue}
        />
      );
    case 'yes-no':
      return <Toggle label={field.label} on={value === true} onToggle={onValue} />;
    case 'choice':
      return (
        <PickOne
          label={field.label}
          value={String(value ?? '')}
          options={(field.options ?? []).map((option) => ({ value: option, label: option }))}
          onChoice={onValue}
        />
      );
    case 'words':
      return (
        <TextField
          label={field.label}
          value={(Array.isArray(value) ? value : []).join(', ')}
          onText={(text) => onValue(text === '' ? undefined : text.split(',').map((word) => word.trim()))}
        />
      );
    case 'platforms':
      return (
        <PickSeveral
          label={field.label}
          placeholder="none"
          values={(value as string[] | undefined) ?? []}
          options={job.catalogue.platforms.map(({ name }) => ({ value: name, label: name }))}
          onChoice={onValue}
        />
      );
    case 'range': {
      const [from = 0, to = 0] = (value as number[] | undefined) ?? [];
      return (
        <fieldset className="flex flex-col gap-1">
          <legend className="text-sm font-semibold text-soft">{field.label}</legend>
          <div className="grid grid-cols-2 gap-2">
            <NumberField label="from" value={from} onNumber={(number) => onValue([number, to])} />
            <NumberField label="to" value={to} onNumber={(number) => onValue([from, number])} />
          </div>
        </fieldset>
      );
    }
  }
}
