import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import {
  type Box,
  type BoxAssessment,
  blockerText,
  ESTIMATE_NOTE,
  fillLineWords,
  lengthText,
  placeKey,
  ruleNote,
  type UnitSystem,
  volumeText,
} from '@inventario/core';
import { ChevronRight, CircleCheck, CircleHelp, CircleSlash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { type House, useHouse, useJob } from '../data/job-context.js';
import { useUnits } from '../data/preferences.js';
import { AgainstAdvice } from './against-advice.js';
import { OwnFigures } from './own-figures.js';

/** A few words for the bar at the bottom of a phone. */
export function glanceAt(house: House | null, boxId: string): string {
  const reckoning = house?.get(boxId);
  if (!reckoning) return 'Being worked out';
  const { planned: assessment, progress } = reckoning;
  const fill =
    assessment.verdict === 'over' ? 'Box fill exceeded' : assessment.verdict === 'ok' ? 'Box fill OK' : '';
  const next = progress.blockers.find((blocker) => blocker.stage === progress.next);
  return [fill, next ? `next: ${blockerText(next)}` : 'done'].filter(Boolean).join(' · ');
}

/** What the engines say about the box in hand: verdicts, and what they rest on. */
export function BoxReckoning({ box, identify }: { box: Box; identify?: ReactNode }) {
  const { job, known } = useJob();
  const units = useUnits(job);
  const house = useHouse();
  const reckoning = house?.get(box.id);
  if (!reckoning) return <p>The box is being worked out …</p>;
  const { found, planned } = reckoning;
  const chosen = box.positions.some(
    (position) => known.selections.get(placeKey(box.id, position.index))?.deviceId,
  );
  return (
    <div className="flex flex-col gap-4">
      <AgainstAdvice boxes={[box]} />
      {identify}
      <Fill title={chosen ? 'Box fill, as found' : 'Box fill'} result={found} units={units} open={!chosen} />
      {chosen && <Fill title="Box fill, as planned" result={planned} units={units} open />}
      <Space result={chosen ? planned : found} units={units} planned={chosen} />
      <p className="text-sm text-soft">
        {ruleNote(job)} Isolate and prove dead before opening a box; what nobody identified stays
        disconnected.
      </p>
    </div>
  );
}

function Verdict({ good, children }: { good: boolean | null; children: ReactNode }) {
  const Icon = good === null ? CircleHelp : good ? CircleCheck : CircleSlash2;
  return (
    <span
      className={
        good === false
          ? 'flex items-center gap-1.5 font-bold text-stop'
          : 'flex items-center gap-1.5 font-bold'
      }
    >
      <Icon aria-hidden className="size-5" />
      {children}
    </span>
  );
}

function Why({ label, open, children }: { label: string; open?: boolean; children: ReactNode }) {
  return (
    <Disclosure defaultOpen={open ?? false}>
      <DisclosureButton className="group flex min-h-11 items-center gap-1 text-sm font-semibold">
        <ChevronRight aria-hidden className="size-4 transition-transform group-data-open:rotate-90" />
        {label}
      </DisclosureButton>
      <DisclosurePanel>{children}</DisclosurePanel>
    </Disclosure>
  );
}

const METHODS: Record<BoxAssessment['method'], string> = {
  'nec-2017': 'NEC 314.16, 2017',
  'nec-2020': 'NEC 314.16, 2020',
  'nec-2023': 'NEC 314.16, 2023',
  'cec-12-3034': 'CE Code 12-3034',
  none: 'no count in this practice',
};

function Fill({
  title,
  result,
  units,
  open,
}: {
  title: string;
  result: BoxAssessment;
  units: UnitSystem;
  open: boolean;
}) {
  const { usedMl, capacityMl, remainingMl } = result;
  const word = {
    ok: 'OK',
    over: 'Exceeded',
    'no-rule':
      result.method === 'none'
        ? 'No count applies'
        : capacityMl === null
          ? 'Volume not read'
          : 'No standing in the count',
  }[result.verdict];
  return (
    <section aria-label={title}>
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-sm font-semibold text-soft">{title}</h2>
        <span className="text-sm text-soft">{METHODS[result.method]}</span>
      </div>
      <Verdict good={result.verdict === 'no-rule' ? null : result.verdict === 'ok'}>{word}</Verdict>
      <OwnFigures own={result.own} />
      {usedMl !== null && (
        <>
          <FillGauge used={usedMl} capacity={capacityMl} />
          <p>
            {volumeText(usedMl, units)} used{capacityMl !== null && ` of ${volumeText(capacityMl, units)}`}
            {remainingMl !== null &&
              (remainingMl < 0
                ? `, ${volumeText(-remainingMl, units)} too much`
                : `, ${volumeText(remainingMl, units)} left`)}
          </p>
          <Why label="What it is made of" open={open}>
            <table className="w-full text-sm">
              <thead className="sr-only">
                <tr>
                  <th>Allowance</th>
                  <th>Volume</th>
                </tr>
              </thead>
              <tbody>
                {result.lines.map((line) => (
                  <tr key={`${line.rule}${line.what}`} className="border-t border-rule align-top">
                    <td className="py-1 pr-2">
                      {fillLineWords(line)}
                      <span className="block text-soft">
                        {line.count} × {volumeText(line.eachMl, units)}, {line.clause}
                      </span>
                    </td>
                    <td className="py-1 text-right whitespace-nowrap">{volumeText(line.ml, units)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Why>
        </>
      )}
    </section>
  );
}

/** Used against capacity; what is over stands out beyond the mark. */
function FillGauge({ used, capacity }: { used: number; capacity: number | null }) {
  if (!capacity) return null;
  const scale = Math.max(used, capacity);
  return (
    <svg aria-hidden="true" viewBox="0 0 200 14" className="my-1 w-full text-ink" preserveAspectRatio="none">
      <rect x="0" y="2" width={(200 * Math.min(used, capacity)) / scale} height="10" fill="currentColor" />
      {used > capacity && (
        <rect
          x={(200 * capacity) / scale}
          y="2"
          width={(200 * (used - capacity)) / scale}
          height="10"
          fill="var(--stop)"
        />
      )}
      <rect
        x="0.5"
        y="1.5"
        width={(200 * capacity) / scale - 1}
        height="11"
        fill="none"
        stroke="currentColor"
      />
    </svg>
  );
}

function Space({ result, units, planned }: { result: BoxAssessment; units: UnitSystem; planned: boolean }) {
  const { depth, packing } = result;
  const deepest = depth.deepest;
  return (
    <section aria-label="Depth and packing" className="flex flex-col gap-2">
      <div>
        <h2 className="text-sm font-semibold text-soft">Depth{planned ? ', as planned' : ''}</h2>
        <Verdict good={depth.verdict === 'unknown' ? null : depth.verdict === 'fits'}>
          {depth.verdict === 'unknown'
            ? 'Depth not measured'
            : depth.verdict === 'fits'
              ? 'Deep enough'
              : 'Too deep'}
        </Verdict>
        <p>
          {deepest
            ? `Position ${deepest.position}: body ${lengthText(deepest.bodyMm, units)} and ` +
              `${lengthText(deepest.clearanceMm, units)} for conductors need ` +
              `${lengthText(depth.neededMm, units)}`
            : 'Nothing with a body in it'}
          {depth.availableMm !== null && `; there is ${lengthText(depth.availableMm, units)}`}.
        </p>
      </div>
      <div>
        <h2 className="text-sm font-semibold text-soft">Packing{planned ? ', as planned' : ''}</h2>
        <Verdict good={packing.verdict === 'unknown' ? null : packing.verdict !== 'will-not-close'}>
          {
            {
              comfortable: 'Comfortable',
              tight: 'Tight',
              'will-not-close': 'Will not close',
              unknown: 'Volume not read',
            }[packing.verdict]
          }
          {packing.occupancy !== null && `, ${Math.round(packing.occupancy * 100)} % occupied`}
        </Verdict>
        <p className="text-sm text-soft">{ESTIMATE_NOTE}</p>
      </div>
    </section>
  );
}
