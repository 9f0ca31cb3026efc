import { type Box, cubicInches, millilitres, profileOf, rounded } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { NumberField } from '../../../ui/field.js';
import type { SetEnclosure } from '../change-box.js';
import { LengthField } from './length-field.js';

/** The volume of a box: as it is marked in it, of the standard list, or from its measures. */
export function Volume({ box, set }: { box: Box; set: SetEnclosure }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { capacity } = box.enclosure;
  const counts = profileOf(job).count !== null;
  const inch = units === 'inch';
  const unit = inch ? 'in³' : 'mL';
  const shown = (volume: { mL?: number | undefined; in3?: number | undefined }) => {
    if (inch && volume.in3 !== undefined) return volume.in3;
    const ml = millilitres(volume) ?? 0;
    return rounded(inch ? cubicInches(ml) : ml, 2);
  };
  const typed = (value: number) => (inch ? { in3: value } : { mL: value });
  const standards = job.catalogue.enclosures.filter((enclosure) => enclosure.practice === job.practice);
  const take = (from: 'marked' | 'standard' | 'measured') => {
    if (from === 'marked') set({ capacity: { from, ...typed(0) } }, 'Volume as marked');
    else if (from === 'measured')
      set({ capacity: { from, width: 0, height: 0, depth: box.enclosure.depth } }, 'Volume as measured');
    else if (standards[0]) set({ capacity: { from, enclosureId: standards[0].id } }, 'A standard box');
  };
  return (
    <div className="flex flex-col gap-2">
      <Segments
        label="Volume"
        value={capacity.from}
        options={[
          // Where nothing is counted nobody reads a marking: the estimate takes inside measures.
          ...(counts ? [{ value: 'marked' as const, label: 'marked' }] : []),
          { value: 'standard' as const, label: 'standard box' },
          { value: 'measured' as const, label: 'measured' },
        ]}
        onChoice={take}
      />
      {capacity.from === 'marked' && counts && (
        <NumberField
          label={`Marked in the box, ${unit}`}
          name="volume"
          unit={unit}
          zeroIsEmpty
          max={20_000}
          value={shown(capacity)}
          onNumber={(value) =>
            set({ capacity: { from: 'marked', ...typed(value) } }, 'Volume as marked', 'volume')
          }
        />
      )}
      {capacity.from === 'standard' && (
        <PickOne
          label="Which"
          hideLabel
          value={capacity.enclosureId}
          options={standards.map((enclosure) => ({
            value: enclosure.id,
            label: enclosure.name,
            hint: `${shown(enclosure)} ${unit}`,
          }))}
          onChoice={(enclosureId) => {
            const chosen = standards.find((enclosure) => enclosure.id === enclosureId);
            // A standard box has a known depth; one measured by hand stays.
            set(
              {
                capacity: { from: 'standard', enclosureId },
                ...(box.enclosure.depth === 0 && chosen?.depth ? { depth: chosen.depth } : {}),
                ...(chosen?.material ? { material: chosen.material } : {}),
              },
              'A standard box',
            );
          }}
        />
      )}
      {capacity.from === 'measured' && (
        <div className="grid grid-cols-3 gap-2">
          {(['width', 'height', 'depth'] as const).map((side) => (
            <LengthField
              key={side}
              label={side}
              units={units}
              zeroIsEmpty
              mm={capacity[side]}
              onMm={(mm) => set({ capacity: { ...capacity, [side]: mm } }, 'Volume as measured', side)}
            />
          ))}
        </div>
      )}
    </div>
  );
}
