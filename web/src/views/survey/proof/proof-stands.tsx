import { type Box, type BoxPower, hinderText, stageToProve, standsNow } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { useBoxPower } from '../../../data/power.js';
import { ProofKeys } from '../../../parts/proof/proof-keys.js';
import { timeOf } from '../../../parts/times.js';

/** Is it dead? What stands, what hinders, and the stage of the proof that comes next. */
export function ProofStands({ box }: { box: Box }) {
  const { job } = useJob();
  const power = useBoxPower(box.id);
  if (!power) return null;
  const stage = power.dead === 'face' ? 'device-out' : stageToProve(standsNow(box, job));
  const ended = power.hinders.filter(({ code }) => ENDED.has(code));
  return (
    <div className="flex flex-col gap-2">
      <p className="font-semibold">{standsWords(power)}</p>
      {power.dead === 'none' &&
        ended.map((hinder) => (
          <p key={`${hinder.code}${hinder.circuitId}${hinder.readingId}`} className="text-sm">
            {hinderText(hinder, box, job)}
          </p>
        ))}
      {power.dead !== 'device-out' && box.circuitIds.length > 0 && (
        <ProofKeys key={stage} box={box} power={power} stage={stage} />
      )}
    </div>
  );
}

function standsWords({ dead, since }: BoxPower): string {
  if (dead === 'device-out') return `Proved dead with the device out, ${timeOf(since ?? '')}.`;
  if (dead === 'face')
    return `Proved dead at the face, ${timeOf(since ?? '')}. Once more with the device out.`;
  return 'Not proved dead.';
}

/** What ended an earlier proof, or leaves a box without any. */
const ENDED: ReadonlySet<string> = new Set([
  'on-unknown-to-prover',
  'corrected',
  'closed',
  'old',
  'not-proved',
]);
