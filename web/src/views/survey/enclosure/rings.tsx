import { type Box, cubicInches, millilitres, rounded } from '@inventario/core';
import { Minus, Plus } from 'lucide-react';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { Button } from '../../../ui/button.js';
import { NumberField } from '../../../ui/field.js';
import type { SetEnclosure } from '../change-box.js';
import { LengthField } from './length-field.js';

/** Plaster rings, raised covers and extensions, each with what it adds. */
export function Rings({ box, set }: { box: Box; set: SetEnclosure }) {
  const { job } = useJob();
  const units = useUnits(job);
  const rings = box.enclosure.rings ?? [];
  const inch = units === 'inch';
  const change = (index: number, more: Partial<(typeof rings)[number]>) =>
    set(
      { rings: rings.map((ring, at) => (at === index ? { ...ring, ...more } : ring)) },
      'Ring',
      `ring${index}`,
    );
  return (
    <div className="flex flex-col gap-2">
      {Object.entries(rings).map(([at, ring]) => (
        <div key={at} className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <NumberField
            label={`Ring ${Number(at) + 1}, volume`}
            unit={inch ? 'in³' : 'mL'}
            value={
              inch
                ? (ring.in3 ?? rounded(cubicInches(millilitres(ring) ?? 0), 2))
                : rounded(millilitres(ring) ?? 0, 1)
            }
            onNumber={(value) =>
              change(Number(at), inch ? { in3: value, mL: undefined } : { mL: value, in3: undefined })
            }
          />
          <LengthField
            label="adds depth"
            units={units}
            mm={ring.depth}
            onMm={(depth) => change(Number(at), { depth })}
          />
          <Button
            icon={Minus}
            iconOnly
            onClick={() => set({ rings: rings.toSpliced(Number(at), 1) }, 'Delete a ring')}
          >
            Delete ring {Number(at) + 1}
          </Button>
        </div>
      ))}
      <Button
        icon={Plus}
        className="self-start"
        onClick={() =>
          set({ rings: [...rings, inch ? { in3: 6, depth: 16 } : { mL: 98, depth: 16 }] }, 'Add a ring')
        }
      >
        Ring, raised cover or extension
      </Button>
    </div>
  );
}
