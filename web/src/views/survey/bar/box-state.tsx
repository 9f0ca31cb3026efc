import type { Box, JobLookup, Stance } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { PickKeys } from '../../../ui/pick-keys.js';
import { Toggle } from '../../../ui/toggle.js';
import { useHand } from '../hand/use-hand.js';

const MULTI: ReadonlySet<string> = new Set(['three-way', 'four-way']);
const SWITCHLESS: ReadonlySet<string> = new Set(['receptacle', 'blank', 'none']);

/** How the box stands, put by hand: for readings of one's own choice. */
export function BoxState() {
  const { known } = useJob();
  const { box, stands, bench, onBench, standsSo, record } = useHand();
  const [first] = box.positions;
  const loads = [...new Set(box.positions.flatMap((position) => position.loadIds))].flatMap(
    (id) => known.loads.get(id) ?? [],
  );
  const put = (key: string, state: 'on' | 'off' | 'up' | 'down') =>
    onBench({ switches: { ...bench.switches, [key]: state } });
  return (
    <div className="flex flex-col gap-3">
      <PickOne
        label="The box stands"
        value={stands.arrangement}
        options={[
          { value: 'in-place', label: 'in place, as found' },
          { value: 'device-out', label: 'device out, its conductors capped', hint: 'joints stay closed' },
          { value: 'lifted', label: 'the one in hand lifted and capped', hint: 'never a neutral' },
          {
            value: 'parted',
            label: 'all joints open',
            hint: 'the exception: both halves of a shared neutral off first',
          },
        ]}
        onChoice={(arrangement: Stance['arrangement']) =>
          standsSo({ arrangement, position: arrangement === 'device-out' ? (first?.index ?? null) : null })
        }
      />
      {stands.arrangement === 'device-out' && box.positions.length > 1 && (
        <Segments
          label="Which is out"
          value={stands.position}
          options={box.positions.map(({ index }) => ({ value: index, label: String(index) }))}
          onChoice={(position) => standsSo({ arrangement: 'device-out', position })}
        />
      )}
      <div className="flex flex-wrap items-end gap-3">
        {box.positions
          .filter(({ index, existing }) => !SWITCHLESS.has(existing) && index !== outOf(stands))
          .map(({ index, existing }) => (
            <Segments
              key={index}
              label={box.positions.length > 1 ? `Switch ${index}` : 'Switch'}
              value={bench.switches[String(index)] ?? null}
              options={(MULTI.has(existing) ? (['up', 'down'] as const) : (['on', 'off'] as const)).map(
                (state) => ({
                  value: state,
                  label: state,
                }),
              )}
              onChoice={(state) => put(String(index), state)}
            />
          ))}
        {farSwitches(box, known).map(({ key, name }) => (
          <Segments
            key={key}
            label={`Switch at ${name}`}
            value={bench.switches[key] ?? null}
            options={(['up', 'down'] as const).map((state) => ({ value: state, label: state }))}
            onChoice={(state) => put(key, state)}
          />
        ))}
        {loads.map((load) => (
          <Toggle
            key={load.id}
            label={`${load.name} out`}
            on={bench.out.includes(load.id)}
            onToggle={(on) =>
              onBench({ out: on ? [...bench.out, load.id] : bench.out.filter((id) => id !== load.id) })
            }
          />
        ))}
      </div>
      {loads.map((load) => (
        <div key={load.id} className="flex flex-wrap items-center gap-2">
          <span className="font-semibold">{load.name}, as seen now</span>
          <PickKeys
            label={`${load.name}, as seen now`}
            keys={(['lit', 'dim', 'dark'] as const).map((value) => ({
              key: value,
              label: value,
              onPick: () => record({ tool: 'lamp', points: [load.id], value }),
            }))}
          />
        </div>
      ))}
    </div>
  );
}

const outOf = ({ arrangement, position }: Stance) => (arrangement === 'device-out' ? position : null);

function farSwitches(box: Box, known: JobLookup): { key: string; name: string }[] {
  const places = box.positions.flatMap(
    (position) => known.groups.get(`${box.id}/${position.index}`)?.places ?? [],
  );
  return places
    .filter((place) => place.boxId !== box.id)
    .map((place) => ({
      key: `${place.boxId}/${place.position}`,
      name: known.boxes.get(place.boxId)?.name ?? place.boxId,
    }));
}
