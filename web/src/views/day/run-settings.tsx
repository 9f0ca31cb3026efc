import { setParts, USUAL_OPEN_AT_ONCE } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import { Segments } from '../../ui/choice.js';
import { TextField } from '../../ui/field.js';
import { Stepper } from '../../ui/stepper.js';
import { Toggle } from '../../ui/toggle.js';

export const USUAL_START = '08:00';

/** How the day is worked: how many boxes open, by whom, from when. */
export function RunSettings() {
  const { job, apply } = useJob();
  const run = job.run ?? {};
  const set = (more: NonNullable<typeof job.run>, label: string) =>
    apply(setParts('job', job.id, job, { run: { ...run, ...more } }), label, `run ${Object.keys(more)[0]}`);
  return (
    <div className="mb-3 flex flex-wrap items-end gap-x-5 gap-y-2">
      <Stepper
        label="Open at once"
        value={run.openAtOnce ?? USUAL_OPEN_AT_ONCE}
        min={1}
        max={12}
        onValue={(openAtOnce) => set({ openAtOnce }, 'Boxes open at once')}
      />
      <Segments
        label="Installers"
        value={run.installers ?? 1}
        options={[
          { value: 1, label: 'One' },
          { value: 2, label: 'Two' },
        ]}
        onChoice={(installers) => set({ installers }, 'Installers')}
      />
      <TextField
        label="Start"
        type="time"
        value={run.starts ?? USUAL_START}
        boxClass="w-32"
        onText={(starts) => starts !== '' && set({ starts }, 'Start of the day')}
      />
      <Toggle
        label="Test before folding"
        on={run.testBeforeFold ?? true}
        onToggle={(testBeforeFold) => set({ testBeforeFold }, 'Test before folding')}
      />
    </div>
  );
}
