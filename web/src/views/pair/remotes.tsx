import { deviceName, type RemoteTask, remoteTasks } from '@inventario/core';
import { instant } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';

/** Remotes and wall controls without wires: each is bound to what it works, which shows it by a ramp. */
export function Remotes() {
  const { known } = useJob();
  const open = remoteTasks(known).filter(({ done }) => !done);
  if (open.length === 0) return null;
  return (
    <section aria-label="Remotes" className="mb-4">
      <h2 className="mb-1 font-bold">Remotes to bind</h2>
      <ul className="grid gap-1.5 xl:grid-cols-2">
        {open.map((task) => (
          <li key={task.point.id} className="rounded-lg border border-rule bg-sheet p-3">
            <OneRemote task={task} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function OneRemote({ task: { point, device, targets } }: { task: RemoteTask }) {
  const { known, apply } = useJob();
  const nameOf = ({ boxId, loadId }: RemoteTask['targets'][number]['target']) =>
    known.boxes.get(boxId ?? '')?.name ?? known.loads.get(loadId ?? '')?.name ?? 'its target';
  return (
    <>
      <p>
        <b>{point.name}</b>
        {device && `, ${deviceName(device)}`}. Hold both buttons until what it works ramps up and down.
      </p>
      <ul>
        {targets.map(({ target, bound }) => {
          const told = (ok: boolean) =>
            apply(
              [
                {
                  kind: 'controlPoint',
                  id: point.id,
                  base: null,
                  append: { bound: [{ ...target, at: instant(), ok }] },
                },
              ],
              `${point.name}: ${ok ? 'bound to' : 'does not work'} ${nameOf(target)}`,
            );
          return (
            <li key={JSON.stringify(target)} className="mt-1 flex flex-wrap items-center gap-1.5">
              <span className="mr-auto">
                {nameOf(target)}
                {bound === true && ': bound'}
                {bound === false && ': it did not ramp'}
              </span>
              {bound !== true && (
                <>
                  <Button onClick={() => told(true)}>It ramped</Button>
                  <Button onClick={() => told(false)}>It did not</Button>
                </>
              )}
            </li>
          );
        })}
      </ul>
    </>
  );
}
