import { type Circuit, profileOf, putPart, setParts } from '@inventario/core';
import { useState } from 'react';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { RecordForm } from '../../parts/record-form.js';
import { PickOne, PickSeveral, Segments } from '../../ui/choice.js';
import { NumberField, TextField } from '../../ui/field.js';

const PROTECTION_WORDS: Record<NonNullable<Circuit['protection']>, string> = {
  none: 'none',
  gfci: 'GFCI',
  afci: 'AFCI',
  dual: 'both',
  rcd: 'RCD',
  rcbo: 'RCBO',
};

/** Yes, no, and nobody looked: three different things. */
type Told = 'yes' | 'no' | 'not told';
const TOLD = (['yes', 'no', 'not told'] as const).map((value) => ({ value, label: value }));
const toldOf = (value: boolean | undefined): Told =>
  value === undefined ? 'not told' : value ? 'yes' : 'no';
const asked = (told: Told): boolean | undefined => (told === 'not told' ? undefined : told === 'yes');

/** A neutral is shared both ways, whichever of the two says so. */
function bothWays(circuit: Circuit, all: readonly Circuit[]): Circuit {
  const others = all
    .filter((other) => other.sharesNeutralWith?.includes(circuit.id))
    .map((other) => other.id);
  return others.length === 0
    ? circuit
    : { ...circuit, sharesNeutralWith: [...new Set([...(circuit.sharesNeutralWith ?? []), ...others])] };
}

/** Everything the file knows of a circuit, in plain words. What nobody looked at stays untold. */
export function CircuitDialog({ id, onClose }: { id: string | null; onClose: () => void }) {
  const { job, known, attempt } = useJob();
  const usual = profileOf(job).circuit;
  const before = id ? known.circuits.get(id) : undefined;
  const [circuit, setCircuit] = useState<Circuit>(() =>
    before
      ? bothWays(before, job.circuits)
      : {
          id: newId(),
          panel: job.circuits.at(-1)?.panel ?? 'Main',
          breaker: '',
          label: '',
          amps: usual.amps,
          volts: usual.volts,
        },
  );
  const change = (more: Partial<Circuit>) => setCircuit({ ...circuit, ...more });
  const save = () => {
    if (circuit.breaker.trim() === '') return 'Give the breaker its number.';
    if (circuit.amps === 0 || circuit.volts === 0) return 'A circuit has amperes and volts above 0.';
    const name = `breaker ${circuit.breaker}`;
    // What is taken off here is taken off there.
    const freed = job.circuits.flatMap((other) =>
      other.id !== circuit.id &&
      other.sharesNeutralWith?.includes(circuit.id) &&
      !circuit.sharesNeutralWith?.includes(other.id)
        ? setParts('circuit', other.id, other, {
            sharesNeutralWith: other.sharesNeutralWith.filter((entry) => entry !== circuit.id),
          })
        : [],
    );
    return before
      ? attempt([...setParts('circuit', circuit.id, before, circuit), ...freed], `Change ${name}`)
      : attempt([putPart('circuit', circuit.id, circuit)], `Add ${name}`);
  };
  const shares = circuit.sharesNeutralWith ?? [];
  return (
    <RecordForm
      title={before ? 'Change the circuit' : 'Add a circuit'}
      save={before ? 'Keep the change' : 'Add the circuit'}
      onSave={save}
      onClose={onClose}
    >
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label="Breaker"
          value={circuit.breaker}
          onText={(breaker) => change({ breaker })}
          maxLength={20}
          autoFocus
        />
        <TextField label="Panel" value={circuit.panel} onText={(panel) => change({ panel })} maxLength={60} />
      </div>
      <TextField
        label="Label, as it stands in the panel"
        value={circuit.label}
        onText={(label) => change({ label })}
        maxLength={100}
      />
      <div className="grid grid-cols-2 gap-3">
        <NumberField
          label="Rating"
          unit="A"
          value={circuit.amps}
          max={400}
          onNumber={(amps) => change({ amps })}
        />
        <NumberField
          label="Voltage"
          unit="V"
          value={circuit.volts}
          max={480}
          onNumber={(volts) => change({ volts })}
        />
      </div>
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        <Segments
          label={usual.legWord}
          value={circuit.leg ?? 'none'}
          options={[
            ...usual.legs.map((leg) => ({ value: leg, label: leg })),
            { value: 'none' as const, label: 'not told' },
          ]}
          onChoice={(leg) => change({ leg: leg === 'none' ? undefined : leg })}
        />
        <Segments
          label="Poles that trip together"
          value={circuit.poles ?? 0}
          options={[
            { value: 1, label: '1' },
            { value: 2, label: '2' },
            { value: 3, label: '3' },
            { value: 0, label: 'not told' },
          ]}
          onChoice={(poles) => change({ poles: poles === 0 ? undefined : poles })}
        />
      </div>
      <PickSeveral
        label="Shares its neutral with"
        placeholder="no other breaker, as far as known"
        values={shares}
        options={job.circuits
          .filter((other) => other.id !== circuit.id)
          .map((other) => ({ value: other.id, label: `${other.breaker} ${other.label}` }))}
        onChoice={(ids) => change({ sharesNeutralWith: ids })}
      />
      {shares.length > 0 && (
        <Segments
          label="Does one handle switch it off together with those?"
          value={toldOf(circuit.commonTrip)}
          options={TOLD}
          onChoice={(told) => change({ commonTrip: asked(told) })}
        />
      )}
      <Segments
        label="Does this breaker open the neutral too?"
        value={toldOf(circuit.isolatesNeutral)}
        options={TOLD}
        onChoice={(told) => change({ isolatesNeutral: asked(told) })}
      />
      <div className="grid grid-cols-2 gap-3">
        <PickOne
          label="Protection"
          value={circuit.protection ?? 'untold'}
          options={[
            ...[...new Set([...usual.protections, ...(circuit.protection ? [circuit.protection] : [])])].map(
              (value) => ({
                value,
                label: PROTECTION_WORDS[value],
              }),
            ),
            { value: 'untold' as const, label: 'not told' },
          ]}
          onChoice={(protection) => change({ protection: protection === 'untold' ? undefined : protection })}
        />
        <PickOne
          label="What feeds it"
          value={circuit.source ?? 'untold'}
          options={[
            { value: 'mains' as const, label: 'the mains alone' },
            { value: 'inverter' as const, label: 'an inverter too', hint: 'solar, battery' },
            { value: 'generator' as const, label: 'a generator too' },
            { value: 'untold' as const, label: 'not told' },
          ]}
          onChoice={(source) => change({ source: source === 'untold' ? undefined : source })}
        />
      </div>
    </RecordForm>
  );
}
