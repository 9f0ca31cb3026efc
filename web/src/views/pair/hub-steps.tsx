import { type HubTask, hubTasks, plural, putPart, setParts } from '@inventario/core';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';

const STEPS = {
  placed: 'placed',
  online: 'online',
  updated: 'updated',
  linked: 'linked',
  done: 'done',
} as const;
/** What is to be done for each step of a hub. */
const HOW = {
  placed: 'Place it where the plan has it, within reach of its first repeater.',
  online: 'Power and network cable; wait for its light; home name and code in its app.',
  updated: 'Let it update itself before anything joins.',
} as const;

/** Hubs come before their devices. Those that are done are out of the way. */
export function HubSteps() {
  const { known } = useJob();
  const open = hubTasks(known).filter(({ step }) => step !== 'done');
  if (open.length === 0) return null;
  return (
    <section id="hubs" aria-label="Hubs first" className="mb-4">
      <h2 className="mb-1 font-bold">Hubs first</h2>
      <ul className="grid gap-1.5 xl:grid-cols-2">
        {open.map((task) => (
          <li key={task.hub.id} className="rounded-lg border border-rule bg-sheet p-3">
            <OneHub task={task} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function OneHub({ task }: { task: HubTask }) {
  const { job, apply } = useJob();
  const { hub, record, devices, links, step } = task;
  const reach = (field: 'placed' | 'online' | 'updated') => {
    const id = record?.id ?? newId();
    const roomId = job.brief?.hubRooms?.[hub.id];
    apply(
      record
        ? setParts('hubSetup', id, record, { [field]: instant() })
        : [putPart('hubSetup', id, { id, hubId: hub.id, [field]: instant(), ...(roomId ? { roomId } : {}) })],
      `${hub.name} ${field}`,
    );
  };
  const link = (platform: string, outcome: 'linked' | 'failed') =>
    record &&
    apply(
      [
        {
          kind: 'hubSetup',
          id: record.id,
          base: null,
          append: { links: [{ platform, at: instant(), outcome }] },
        },
      ],
      `${hub.name}: ${outcome} to ${platform}`,
    );
  return (
    <>
      <p>
        <b>{hub.name}</b>, {plural(devices, 'device')} through it. Next: {STEPS[step]}.
      </p>
      {step === 'linked' ? (
        <div className="mt-1 flex flex-wrap gap-1">
          {links
            .filter(({ outcome }) => outcome !== 'linked')
            .map(({ platform, outcome }) => (
              <Button key={platform} onClick={() => link(platform, 'linked')}>
                {outcome === 'failed' ? 'Now linked' : 'Linked'} to {platform}
              </Button>
            ))}
        </div>
      ) : (
        step !== 'done' && (
          <>
            <p className="text-sm text-soft">{HOW[step]}</p>
            <Button className="mt-1" onClick={() => reach(step)}>
              It is {STEPS[step]}
            </Button>
          </>
        )
      )}
    </>
  );
}
