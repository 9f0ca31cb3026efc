import { type Circuit, CircuitEntry, type EditPart, profileOf, putPart, setParts } from '@inventario/core';
import type { UseFormReturn } from 'react-hook-form';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import {
  FormNumber,
  FormPick,
  FormPickSeveral,
  FormSegments,
  FormText,
  FormYesNo,
} from '../../parts/form-fields.js';
import { RecordForm, useRecordForm } from '../../parts/record-form.js';

const PROTECTION_WORDS: Record<NonNullable<Circuit['protection']>, string> = {
  none: 'none',
  gfci: 'GFCI',
  afci: 'AFCI',
  dual: 'both',
  rcd: 'RCD',
  rcbo: 'RCBO',
};

/** A neutral is shared both ways, whichever of the two says so. */
function bothWays(circuit: Circuit, all: readonly Circuit[]): Circuit {
  const others = all
    .filter((other) => other.sharesNeutralWith?.includes(circuit.id))
    .map((other) => other.id);
  return others.length === 0
    ? circuit
    : { ...circuit, sharesNeutralWith: [...new Set([...(circuit.sharesNeutralWith ?? []), ...others])] };
}

/** What is taken off here is taken off there. */
function freedNeutrals(circuit: Circuit, all: readonly Circuit[]): EditPart[] {
  return all.flatMap((other) =>
    other.id !== circuit.id &&
    other.sharesNeutralWith?.includes(circuit.id) &&
    !circuit.sharesNeutralWith?.includes(other.id)
      ? setParts('circuit', other.id, other, {
          sharesNeutralWith: other.sharesNeutralWith.filter((entry) => entry !== circuit.id),
        })
      : [],
  );
}

/** Everything the file knows of a circuit, in plain words. What nobody looked at stays untold. */
export function CircuitDialog({ id, onClose }: { id: string | null; onClose: () => void }) {
  const { job, known, attempt } = useJob();
  const { amps, volts } = profileOf(job).circuit;
  const before = id ? known.circuits.get(id) : undefined;
  const panel = job.circuits.at(-1)?.panel ?? 'Main';
  const form = useRecordForm(
    CircuitEntry,
    before ? bothWays(before, job.circuits) : { id: newId(), panel, breaker: '', label: '', amps, volts },
  );
  const save = (circuit: Circuit) => {
    const name = `breaker ${circuit.breaker}`;
    return before
      ? attempt(
          [...setParts('circuit', circuit.id, before, circuit), ...freedNeutrals(circuit, job.circuits)],
          `Change ${name}`,
        )
      : attempt([putPart('circuit', circuit.id, circuit)], `Add ${name}`);
  };
  return (
    <RecordForm
      title={before ? 'Change the circuit' : 'Add a circuit'}
      save={before ? 'Done' : 'Add the circuit'}
      form={form}
      onSave={save}
      onClose={onClose}
    >
      <OnTheWall form={form} />
      <Neutral form={form} />
      <Protection form={form} />
    </RecordForm>
  );
}

interface SectionProps {
  form: UseFormReturn<Circuit>;
}

/** What one reads in the panel. */
function OnTheWall({ form: { control } }: SectionProps) {
  const { job } = useJob();
  const usual = profileOf(job).circuit;
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <FormText control={control} name="breaker" label="Breaker" maxLength={20} autoFocus />
        <FormText control={control} name="panel" label="Panel" maxLength={60} />
      </div>
      <FormText control={control} name="label" label="Label, as it stands in the panel" maxLength={100} />
      <div className="grid grid-cols-2 gap-3">
        <FormNumber control={control} name="amps" label="Rating" unit="A" max={400} />
        <FormNumber control={control} name="volts" label="Voltage" unit="V" max={480} />
      </div>
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        <FormSegments
          control={control}
          name="leg"
          label={usual.legWord}
          options={usual.legs.map((leg) => ({ value: leg, label: leg }))}
          untold="not told"
        />
        <FormSegments
          control={control}
          name="poles"
          label="Poles that trip together"
          options={[1, 2, 3].map((value) => ({ value, label: String(value) }))}
          untold="not told"
        />
      </div>
    </>
  );
}

function Neutral({ form }: SectionProps) {
  const { job } = useJob();
  const { control } = form;
  const [id, shares = []] = form.watch(['id', 'sharesNeutralWith']);
  return (
    <>
      <FormPickSeveral
        control={control}
        name="sharesNeutralWith"
        label="Shares its neutral with"
        placeholder="no other breaker, as far as known"
        options={job.circuits
          .filter((other) => other.id !== id)
          .map((other) => ({ value: other.id, label: `${other.breaker} ${other.label}` }))}
      />
      {shares.length > 0 && (
        <FormYesNo
          control={control}
          name="commonTrip"
          label="Does one handle switch it off together with those?"
        />
      )}
      <FormYesNo control={control} name="isolatesNeutral" label="Does this breaker open the neutral too?" />
    </>
  );
}

function Protection({ form }: SectionProps) {
  const { job } = useJob();
  const { control } = form;
  const fitted = form.watch('protection');
  const kinds = new Set([...profileOf(job).circuit.protections, ...(fitted ? [fitted] : [])]);
  return (
    <div className="grid grid-cols-2 gap-3">
      <FormPick
        control={control}
        name="protection"
        label="Protection"
        options={[...kinds].map((value) => ({ value, label: PROTECTION_WORDS[value] }))}
        untold="not told"
      />
      <FormPick
        control={control}
        name="source"
        label="What feeds it"
        options={[
          { value: 'mains', label: 'the mains alone' },
          { value: 'inverter', label: 'an inverter too', hint: 'solar, battery' },
          { value: 'generator', label: 'a generator too' },
        ]}
        untold="not told"
      />
    </div>
  );
}
