import {
  capital,
  connectorWords,
  deviceName,
  lengthText,
  netWords,
  plural,
  type Terminal,
} from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import type { Work } from '../../parts/wiring/use-work.js';
import { Fold } from '../../ui/fold.js';

const FORMS: Record<Terminal['form'], string> = {
  lead: 'lead',
  screw: 'screw',
  clamp: 'clamp',
  'push-in': 'push-in',
};

/** A card for each device that goes in: what one would look up in its leaflet, for this box. */
export function DeviceCards({ work }: { work: Work }) {
  return work.wiring.places.map(({ position, device }) =>
    device ? <DeviceCard key={position.index} work={work} position={position.index} /> : null,
  );
}

function DeviceCard({ work, position }: { work: Work; position: number }) {
  const { known, job } = useJob();
  const units = useUnits(job);
  const device = work.wiring.places.find((place) => place.position.index === position)?.device;
  if (!device) return null;
  const several = work.wiring.places.length > 1;
  return (
    <Fold
      title={`${deviceName(device)}${several ? `, position ${position}` : ''}`}
      says={`${plural(device.terminals.length, 'terminal')}${device.cutOut ? ', cut-out' : ''}`}
    >
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-rule">
            <th className="py-1 pr-2">Printed</th>
            <th className="py-1 pr-2">Form</th>
            <th className="py-1 pr-2">Strip</th>
            <th className="py-1">Goes to</th>
          </tr>
        </thead>
        <tbody>
          {device.terminals.map((terminal) => (
            <tr key={terminal.id} className="border-b border-rule">
              <th className="py-1 pr-2">{terminal.mark ?? terminal.id}</th>
              <td className="py-1 pr-2">
                {FORMS[terminal.form]}
                {terminal.form === 'lead' &&
                  terminal.colour &&
                  terminal.colour !== 'unknown' &&
                  `, ${terminal.colour}`}
                {(terminal.holds ?? 1) > 1 && `, holds ${terminal.holds}`}
              </td>
              <td className="py-1 pr-2 whitespace-nowrap">
                {terminal.strip === undefined ? '' : lengthText(terminal.strip, units)}
              </td>
              <td className="py-1">{goesTo(work, `${position}.${terminal.id}`)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
        {(device.lights ?? []).map(({ shows, means }) => (
          <Fact key={shows} name={`Light ${shows}`} value={means} />
        ))}
        {device.cutOut && <Fact name="Cut-out" value={device.cutOut} />}
        {device.reset && <Fact name="Reset" value={device.reset} />}
      </dl>
    </Fold>
  );

  function goesTo({ wiring, picture }: Work, name: string): string {
    const { plan } = wiring;
    const joint = plan.joints.find(({ members }) => members.includes(name));
    if (joint) {
      const number = picture.joints.find(({ id }) => id === joint.id)?.number;
      return `joint ${number}, ${netWords(joint.net, known)}, ${connectorWords(joint.connector, known)}`;
    }
    const net = plan.terminals.get(name);
    const on = plan.landed.filter(({ terminal }) => terminal === name).length;
    return on > 0 && net !== undefined ? `${netWords(net, known)}, ${plural(on, 'wire')}` : 'capped';
  }
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <>
      <dt className="font-semibold">{capital(name)}</dt>
      <dd>{value}</dd>
    </>
  );
}
