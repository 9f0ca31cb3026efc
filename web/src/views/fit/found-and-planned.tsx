import { type BoxAssessment, lengthText, type UnitSystem, volumeText } from '@inventario/core';
import { classes } from '../../ui/classes.js';

/** The box as it was found beside the box as it is planned, figure by figure. */
export function FoundAndPlanned({
  found,
  planned,
  units,
}: {
  found: BoxAssessment;
  planned: BoxAssessment;
  units: UnitSystem;
}) {
  const rows = [
    { name: 'Count', text: countText, bad: (result: BoxAssessment) => result.verdict === 'over' },
    { name: 'Depth', text: depthText, bad: (result: BoxAssessment) => result.depth.verdict === 'too-deep' },
    {
      name: 'Packing',
      text: packingText,
      bad: (result: BoxAssessment) => result.packing.verdict === 'will-not-close',
    },
  ];
  return (
    <table className="w-full text-sm">
      <thead>
        <tr className="text-left text-soft">
          <th className="sr-only">Figure</th>
          <th className="py-1 font-semibold">As found</th>
          <th className="py-1 font-semibold">As planned</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, text, bad }) => (
          <tr key={name} className="border-t border-rule">
            <th className="sr-only">{name}</th>
            {[found, planned].map((result, at) => (
              <td
                key={at === 0 ? 'found' : 'planned'}
                className={classes('py-1 pr-2 align-top', bad(result) && 'font-semibold text-stop')}
              >
                {text(result, units)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function countText({ usedMl, capacityMl }: BoxAssessment, units: UnitSystem): string {
  if (usedMl === null) return 'no count applies';
  return (
    `${volumeText(usedMl, units)} in ` +
    `${capacityMl === null ? 'a box not read' : volumeText(capacityMl, units)}`
  );
}

function depthText({ depth }: BoxAssessment, units: UnitSystem): string {
  return (
    `${lengthText(depth.neededMm, units)} deep in ` +
    `${depth.availableMm === null ? 'a box not measured' : lengthText(depth.availableMm, units)}`
  );
}

function packingText({ packing }: BoxAssessment): string {
  return packing.occupancy === null
    ? 'packing not known'
    : `${Math.round(packing.occupancy * 100)} % of the room taken`;
}
