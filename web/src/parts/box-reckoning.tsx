import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import {
  type Blocker,
  type Box,
  type BoxAssessment,
  type BoxProgress,
  blockerText,
  ESTIMATE_NOTE,
  fillLineWords,
  lengthText,
  placeKey,
  putPart,
  ruleNote,
  type UnitSystem,
  volumeText,
} from '@inventario/core';
import { ChevronRight, CircleCheck, CircleHelp, CircleSlash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { instant, newId } from '../data/ids.js';
import { type House, useHouse, useJob } from '../data/job-context.js';
import { useUnits } from '../data/preferences.js';
import { Button } from '../ui/button.js';
import { AgainstAdvice } from './against-advice.js';
import { OwnFigures } from './own-figures.js';
import { paths } from './paths.js';

/** A few words for the bar at the bottom of a phone. */
export function glanceAt(house: House | null, boxId: string): string {
  const reckoning = house?.get(boxId);
  if (!reckoning) return 'Being worked out';
  const { planned: assessment, progress } = reckoning;
  const fill = assessment.verdict === 'over' ? 'Over-full' : assessment.verdict === 'ok' ? 'Fill ok' : '';
  const next = progress.blockers.find((blocker) => blocker.stage === progress.next);
  return [fill, next ? `next: ${blockerText(next)}` : 'done'].filter(Boolean).join(' · ');
}

/** What the engines say about the box in hand, the one next action on top. */
export function BoxReckoning({ box, identify }: { box: Box; identify?: ReactNode }) {
  const { job, known } = useJob();
  const units = useUnits(job);
  const house = useHouse();
  const reckoning = house?.get(box.id);
  if (!reckoning) return <p>Being worked out …</p>;
  const { found, planned, progress } = reckoning;
  const chosen = box.positions.some(
    (position) => known.selections.get(placeKey(box.id, position.index))?.deviceId,
  );
  return (
    <div className="flex flex-col gap-4">
      <NextAction box={box} progress={progress} />
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

const FOCUS: Partial<Record<Blocker['code'], string>> = {
  'volume-not-read': 'input[name="volume"]',
  'depth-not-read': 'input[name="depth"]',
};
const ACTIONS: Record<Blocker['code'], string> = {
  stopped: 'Have what stops the work put right',
  'labels-clash': 'Settle the labels that exclude each other',
  'no-conductors': 'Record the cables and conductors',
  'no-positions': 'Record the positions',
  'volume-not-read': 'Read the volume marked in the box',
  'depth-not-read': 'Measure the depth inside',
  'loads-not-named': 'Say what each position works',
  'no-circuit': 'Name the circuit that feeds the box',
  'not-identified': 'Label the conductors',
  'not-chosen': 'Choose a device',
  'over-full': 'Find a device or box that is not over-full',
  'too-deep': 'Find a device that is not too deep',
  'not-mounted': 'Wire and mount it, then record it here',
  'not-paired': 'Pair it',
  'pairing-failed': 'Try to pair it again',
};

/** The one touch that goes on from a blocker: where it leads, what it records, or which field it asks for. */
function Action({
  box,
  code,
  position,
}: {
  box: Box;
  code: keyof typeof ACTIONS;
  /** Where a device is to be chosen. */
  position: number | undefined;
}) {
  const { job, apply } = useJob();
  const does = ACTIONS[code];
  const recordMounted = () => {
    const id = newId();
    apply(
      [putPart('event', id, { id, kind: 'mounted', boxId: box.id, at: instant() })],
      `${box.name} wired and mounted`,
    );
  };
  if (code === 'not-mounted')
    return (
      <>
        <p className="text-sm">
          Wire it dead: breaker off and locked, proved dead at the face and again with the device out.
        </p>
        <Button kind="main" onClick={recordMounted}>
          Record: wired and mounted
        </Button>
      </>
    );
  if (code === 'not-paired' || code === 'pairing-failed')
    return <ActionLink to={paths.pair(job.id)}>{does}</ActionLink>;
  if ((code === 'not-chosen' || code === 'over-full' || code === 'too-deep') && position !== undefined)
    return <ActionLink to={paths.place(job.id, box.id, position)}>{does}</ActionLink>;
  const field = FOCUS[code];
  if (!field) return <p className="font-semibold">{does}</p>;
  return (
    <Button kind="main" onClick={() => document.querySelector<HTMLInputElement>(field)?.focus()}>
      {does}
    </Button>
  );
}

function NextAction({ box, progress }: { box: Box; progress: BoxProgress }) {
  const { known } = useJob();
  const next = progress.blockers.find((blocker) => blocker.stage === progress.next);
  if (!next)
    return <p className="rounded-md border-2 border-ink bg-sheet p-3 font-semibold">This box is done.</p>;
  const open = box.positions.find(
    (position) => position.need?.smart && !known.selections.has(placeKey(box.id, position.index)),
  );
  const target =
    next.code === 'not-chosen' && open ? open : box.positions.find((position) => position.need?.smart);
  const rest = progress.blockers.filter((blocker) => blocker !== next && blocker.stage === progress.next);
  return (
    <section aria-label="Next" className="flex flex-col gap-2 rounded-md border-2 border-ink bg-sheet p-3">
      <h2 className="text-sm font-semibold text-soft">Next, before it counts as {next.stage}</h2>
      <Action box={box} code={next.code} position={target?.index} />
      <p className="text-sm text-soft">
        {blockerText(next)}
        {rest.length > 0 && `; then ${rest.map(blockerText).join('; ')}`}
      </p>
    </section>
  );
}

function ActionLink({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Link
      to={to}
      className="flex min-h-11 items-center justify-center rounded-md bg-strong px-3 font-semibold text-onstrong"
    >
      {children}
    </Link>
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
    ok: 'Closes by the count',
    over: 'Over-full',
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
