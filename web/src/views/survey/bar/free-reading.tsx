import {
  type Box,
  conductorsById,
  conductorWords,
  type JobLookup,
  readingGate,
  runOf,
} from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { MeterKeys } from '../../../parts/meter-pad.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { PickKeys } from '../../../ui/pick-keys.js';
import { useHand } from '../hand/use-hand.js';
import { GateNote } from '../reading/gate-note.js';
import { StateLine } from './state-line.js';

const TOOLS = [
  { value: 'indicator', label: 'indicator' },
  { value: 'volts-low-z', label: 'volts, low Z' },
  { value: 'volts', label: 'volts' },
  { value: 'ohms', label: 'ohms' },
] as const;

/** A reading of one's own choice on the conductor in hand; what may be done is the power engine's to say. */
export function FreeReading() {
  const { job, known } = useJob();
  const { box, power, circuits, said, stands, bench, onBench, record } = useHand();
  const held = conductorsById(box).get(bench.held ?? '');
  if (!held) return null;
  const setUp = {
    tool: bench.tool,
    arrangement: stands.arrangement,
    ...(stands.position === null ? {} : { position: stands.position }),
    lifted: [held.id],
  };
  const roleOf = (id: string) => said?.conductors.find((conductor) => conductor.id === id)?.role;
  const gate = readingGate({ box, job, power, circuits }, setUp, roleOf);
  const shut = gate.kind === 'open' || (gate.kind === 'stand-clear' && bench.stoodClear) ? null : gate;
  const told = (value: Parameters<typeof record>[0]['value']) =>
    record({
      tool: bench.tool,
      points: bench.tool === 'indicator' ? [held.id] : [held.id, bench.second],
      value,
    });
  return (
    <>
      <StateLine />
      <div className="flex flex-wrap items-end gap-2">
        <Segments
          label="Instrument"
          hideLabel
          value={bench.tool}
          options={TOOLS}
          onChoice={(tool) => onBench({ tool })}
        />
        {bench.tool !== 'indicator' && (
          <PickOne
            label="To"
            value={bench.second}
            options={[
              { value: 'reference', label: 'a known earth, by test lead' },
              { value: 'box', label: 'the box' },
              ...box.conductors
                .filter((conductor) => conductor.cableId && conductor.id !== held.id)
                .map(({ id }) => ({ value: id, label: conductorWords(box, id, job) })),
              ...farOptions(box, held.id, known),
            ]}
            onChoice={(second) => onBench({ second })}
            className="min-w-56 flex-1"
          />
        )}
      </div>
      {shut ? (
        <GateNote box={box} gate={shut} />
      ) : bench.tool === 'indicator' ? (
        <PickKeys
          label="Result"
          columns={2}
          keys={(['alert', 'quiet'] as const).map((value) => ({
            key: value,
            label: value,
            onPick: () => told(value),
          }))}
        />
      ) : (
        <MeterKeys
          key={bench.tool}
          label={bench.tool === 'ohms' ? 'Resistance' : 'Voltage'}
          tool={bench.tool}
          onValue={told}
        />
      )}
    </>
  );
}

/** The other end of the conductor in hand, where its run says which it is: for ohms from end to end. */
function farOptions(box: Box, heldId: string, known: JobLookup): { value: string; label: string }[] {
  const cableId = conductorsById(box).get(heldId)?.cableId;
  const found = cableId ? runOf(box.id, cableId, known) : null;
  const other = found?.run.pairs?.find((pair) => pair.includes(heldId))?.find((id) => id !== heldId);
  const far = known.boxes.get(found?.far.boxId ?? '');
  return far && other ? [{ value: `${far.id}/${other}`, label: `its other end in ${far.name}` }] : [];
}
