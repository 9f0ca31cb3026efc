import { type Box, boxCapacity, lengthText, plural, profileOf, volumeText } from '@inventario/core';
import { Pencil } from 'lucide-react';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { Button } from '../../../ui/button.js';

/** The enclosure once it is read, out of the way of the conductors. */
export function EnclosureInWords({ box, onChange }: { box: Box; onChange: () => void }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { enclosure } = box;
  const { capacity } = enclosure;
  const standard =
    capacity.from === 'standard'
      ? job.catalogue.enclosures.find((entry) => entry.id === capacity.enclosureId)
      : undefined;
  const { ml } = boxCapacity(box, job);
  const metal = enclosure.grounded ? 'metal, bonded' : 'metal, not bonded';
  const lines = [
    [
      'Box',
      `${plural(enclosure.gangs, profileOf(job).words.gang)}, ` +
        (enclosure.material === 'plastic' ? 'plastic' : metal),
    ],
    ['Volume', `${volumeText(ml ?? 0, units)}, ${standard ? `standard: ${standard.name}` : capacity.from}`],
    [
      'Depth',
      lengthText(enclosure.depth, units) +
        (enclosure.setBack ? `, set back ${lengthText(enclosure.setBack, units)}` : ''),
    ],
    ['Clamps', enclosure.internalClamps ? 'inside' : 'none inside'],
    ...(enclosure.rings?.length ? [['Rings', String(enclosure.rings.length)]] : []),
    ...(box.signal
      ? [['Signal', 'rssi' in box.signal ? `${box.signal.rssi} dBm` : `${box.signal.bars} bars`]]
      : []),
  ];
  return (
    <div className="flex flex-col gap-2">
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
        {lines.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <Button icon={Pencil} className="self-start" onClick={onChange}>
        Change the enclosure
      </Button>
    </div>
  );
}
