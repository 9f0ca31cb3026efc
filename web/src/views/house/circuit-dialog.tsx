import { type Circuit, type PracticeId, putPart, setParts } from '@inventario/core';
import { useState } from 'react';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Segments } from '../../ui/choice.js';
import { NumberField, TextField } from '../../ui/field.js';
import { RecordForm } from './record-form.js';

const USUAL: Record<PracticeId, { amps: number; volts: number }> = {
  us: { amps: 15, volts: 120 },
  ca: { amps: 15, volts: 120 },
  gb: { amps: 6, volts: 230 },
  modular: { amps: 6, volts: 230 },
};

export function CircuitDialog({ id, onClose }: { id: string | null; onClose: () => void }) {
  const { job, known, apply } = useJob();
  const before = id ? known.circuits.get(id) : undefined;
  const [circuit, setCircuit] = useState<Circuit>(
    before ?? { id: newId(), panel: job.circuits.at(-1)?.panel ?? 'Main', breaker: '', label: '', ...USUAL[job.practice] },
  );
  const change = (more: Partial<Circuit>) => setCircuit({ ...circuit, ...more });
  const save = () => {
    if (circuit.breaker.trim() === '') return 'Give the breaker its number.';
    if (circuit.amps === 0 || circuit.volts === 0) return 'A circuit has amperes and volts above 0.';
    const name = `breaker ${circuit.breaker}`;
    return before
      ? apply(setParts('circuit', circuit.id, before, circuit), `Change ${name}`)
      : apply([putPart('circuit', circuit.id, circuit)], `Add ${name}`);
  };
  return (
    <RecordForm
      title={before ? 'Change the circuit' : 'Add a circuit'}
      save={before ? 'Keep the change' : 'Add the circuit'}
      onSave={save}
      onClose={onClose}
    >
      <div className="grid grid-cols-2 gap-3">
        <TextField label="Breaker" value={circuit.breaker} onText={(breaker) => change({ breaker })} maxLength={20} autoFocus />
        <TextField label="Panel" value={circuit.panel} onText={(panel) => change({ panel })} maxLength={60} />
      </div>
      <TextField label="Label, as it stands in the panel" value={circuit.label} onText={(label) => change({ label })} maxLength={100} />
      <div className="grid grid-cols-2 gap-3">
        <NumberField label="Rating" unit="A" value={circuit.amps} max={400} onNumber={(amps) => change({ amps })} />
        <NumberField label="Voltage" unit="V" value={circuit.volts} max={480} onNumber={(volts) => change({ volts })} />
      </div>
      {(job.practice === 'us' || job.practice === 'ca') && (
        <Segments
          label="Leg"
          value={circuit.leg ?? 'none'}
          options={[
            { value: 'A', label: 'A' },
            { value: 'B', label: 'B' },
            { value: 'none', label: 'not told' },
          ]}
          onChoice={(leg) => change({ leg: leg === 'none' ? undefined : (leg as 'A' | 'B') })}
        />
      )}
    </RecordForm>
  );
}
