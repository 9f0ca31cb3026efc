import {
  type Box,
  COLOUR_WORDS,
  type Conductor,
  conductorWords,
  type Reading,
  type Role,
  readingGate,
  runOf,
  showsLife,
  sweepPoints,
  wireSizeText,
} from '@inventario/core';
import { useEffect, useRef } from 'react';
import { instant, newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { useBoxPower, useJobPower } from '../../../data/power.js';
import { MeterPad } from '../../../parts/meter-pad.js';
import { PowerShape } from '../../../parts/power-shape.js';
import { StopCard } from '../../../parts/stop-card.js';
import { Button } from '../../../ui/button.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { Toggle } from '../../../ui/toggle.js';
import { ReadingGate } from './reading-gate.js';
import { type Bench, breakersOf, readingOf } from './reading-state.js';

const TOOLS = [
  { value: 'indicator', label: 'indicator' },
  { value: 'volts-low-z', label: 'volts, low Z' },
  { value: 'volts', label: 'volts' },
  { value: 'ohms', label: 'ohms' },
] as const;

/**
 * Reading entry for one hand: a conductor from the drawing, the instrument, the result. The state is taken
 * from where it shows; what may be done in it is the power engine's to say.
 * @param roleOf what the readings make of a conductor
 */
export function ReadingTray({
  box,
  bench,
  roleOf,
  onBench,
}: {
  box: Box;
  bench: Bench;
  roleOf: (conductorId: string) => Role | undefined;
  onBench: (bench: Bench) => void;
}) {
  const { job, known, applyAndSay } = useJob();
  const power = useBoxPower(box.id);
  const { circuits } = useJobPower();
  if (!power) return null;
  const breakers = breakersOf(job, circuits);
  const own = circuits.filter((entry) => power.circle.includes(entry.circuitId));
  const stateKey = own.map((entry) => `${entry.circuitId}${entry.state}${entry.since}`).join();
  const set = (more: Partial<Bench>) => onBench({ ...bench, ...more });

  const record = (...entered: Entered[]) => {
    const at = instant();
    const readings = entered.map((what) => readingOf(box, bench, breakers, { id: newId(), at, ...what }));
    const [first] = entered;
    const what = entered.length === 1 && first ? String(first.value) : `${entered.length} readings`;
    const alive = readings.some((reading) =>
      showsLife({ ...box, readings: [...box.readings, ...readings] }, reading, job),
    );
    applyAndSay(
      [
        {
          kind: 'box',
          id: box.id,
          base: null,
          append: { readings: readings as unknown as Record<string, unknown>[] },
        },
      ],
      `Reading: ${what} (${box.name})`,
      alive ? `Recorded: ${what}. It is live with its breakers off: stop.` : `Recorded: ${what}.`,
    );
  };
  const loads = [...new Set(box.positions.flatMap((position) => position.loadIds))].flatMap(
    (id) => known.loads.get(id) ?? [],
  );
  const held = box.conductors.find((conductor) => conductor.id === bench.held);
  const setUp = {
    tool: bench.tool,
    arrangement: bench.arrangement,
    position: bench.position,
    ...(bench.held ? { lifted: [bench.held] } : {}),
  };
  const asked = readingGate({ box, job, power, circuits }, setUp, roleOf);
  // One touch records the whole sweep: a reading for each conductor that the indicator can reach.
  const rest = sweepPoints(box).filter((id) => id !== bench.held);
  const gate =
    asked.kind === 'stand-clear' && bench.stoodClear === stateKey ? { kind: 'open' as const } : asked;

  return (
    <div className="mt-2 flex flex-col gap-3 border-t-2 border-ink pt-3">
      {!held && <StopCard box={box} only="live-while-off" />}
      <div className="flex flex-wrap items-end gap-3">
        <PickOne
          label="The box stands"
          value={bench.arrangement}
          options={[
            { value: 'in-place', label: 'in place, as found' },
            { value: 'device-out', label: 'device out, its conductors capped', hint: 'joints stay closed' },
            { value: 'lifted', label: 'the one in hand lifted and capped', hint: 'never a neutral' },
            {
              value: 'parted',
              label: 'everything parted',
              hint: 'the exception: both halves of a shared neutral off first',
            },
          ]}
          onChoice={(arrangement) => set({ arrangement })}
          className="min-w-56 flex-1"
        />
        {bench.arrangement === 'device-out' && box.positions.length > 1 && (
          <Segments
            label="Which is out"
            value={bench.position}
            options={box.positions.map(({ index }) => ({ value: index, label: String(index) }))}
            onChoice={(position) => set({ position })}
          />
        )}
        <ul aria-label="Breakers, from the power bar" className="flex min-h-11 flex-wrap items-center gap-2">
          {own.map((entry) => (
            <li
              key={entry.circuitId}
              className={
                entry.state === 'on'
                  ? 'flex items-center gap-1.5 text-live'
                  : entry.state === 'off'
                    ? 'flex items-center gap-1.5 text-off'
                    : 'flex items-center gap-1.5'
              }
            >
              <PowerShape state={entry.state} />
              breaker {known.circuits.get(entry.circuitId)?.breaker} {entry.state}
            </li>
          ))}
        </ul>
      </div>
      <div className="flex flex-wrap items-end gap-3">
        {box.positions
          .filter(
            (position) =>
              !(bench.arrangement === 'device-out' && position.index === bench.position) &&
              position.existing !== 'receptacle' &&
              position.existing !== 'blank' &&
              position.existing !== 'none',
          )
          .map((position) => {
            const multi = position.existing === 'three-way' || position.existing === 'four-way';
            return (
              <Segments
                key={position.index}
                label={box.positions.length > 1 ? `Switch ${position.index}` : 'Switch'}
                value={bench.switches[String(position.index)] ?? null}
                options={(multi ? (['up', 'down'] as const) : (['on', 'off'] as const)).map((state) => ({
                  value: state,
                  label: state,
                }))}
                onChoice={(state) =>
                  set({ switches: { ...bench.switches, [String(position.index)]: state } })
                }
              />
            );
          })}
        {farSwitches(box, known).map(({ key, name }) => (
          <Segments
            key={key}
            label={`Switch at ${name}`}
            value={bench.switches[key] ?? null}
            options={(['up', 'down'] as const).map((state) => ({ value: state, label: state }))}
            onChoice={(state) => set({ switches: { ...bench.switches, [key]: state } })}
          />
        ))}
        {loads.map((load) => (
          <Toggle
            key={load.id}
            label={`${load.name} out`}
            on={bench.out.includes(load.id)}
            onToggle={(on) =>
              set({ out: on ? [...bench.out, load.id] : bench.out.filter((id) => id !== load.id) })
            }
          />
        ))}
      </div>
      {loads.length > 0 && (
        <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <legend className="text-sm font-semibold text-soft">Lamps, as seen now</legend>
          {loads.map((load) => (
            <span key={load.id} className="flex items-center gap-1">
              <span className="mr-1">{load.name}</span>
              {(['lit', 'dim', 'dark'] as const).map((value) => (
                <Button
                  key={value}
                  aria-label={`${load.name} ${value}`}
                  onClick={() => record({ tool: 'lamp', points: [load.id], value })}
                >
                  {value}
                </Button>
              ))}
            </span>
          ))}
        </fieldset>
      )}
      {!held && <p className="font-semibold">Touch the conductor to read.</p>}
      {held && (
        <div className="grid gap-3 md:grid-cols-2">
          <div className="flex flex-col gap-3">
            <p className="font-semibold">
              On {conductorWords(box, held.id)} ({COLOUR_WORDS[held.colour]}, {wireSizeText(held.size)})
            </p>
            <Segments
              label="Instrument"
              value={bench.tool}
              options={TOOLS}
              onChoice={(tool) => set({ tool })}
            />
            {bench.tool !== 'indicator' && (
              <PickOne
                label="To"
                value={bench.second}
                options={[
                  { value: 'reference', label: 'a known earth, by test lead' },
                  { value: 'box', label: 'the box' },
                  ...box.conductors
                    .filter((conductor) => conductor.cableId && conductor.id !== held.id)
                    .map((conductor) => ({ value: conductor.id, label: conductorWords(box, conductor.id) })),
                  ...farOptions(box, held.id, known),
                ]}
                onChoice={(second) => set({ second })}
              />
            )}
          </div>
          <LiveStop box={box} />
          {gate.kind === 'open' ? (
            <Result bench={bench} held={held} rest={rest} onRecord={record} />
          ) : (
            <ReadingGate box={box} gate={gate} onStoodClear={() => set({ stoodClear: stateKey })} />
          )}
        </div>
      )}
    </div>
  );
}

/** What the instrument shows on the conductor in hand. */
function Result({
  bench,
  held,
  rest,
  onRecord,
}: {
  bench: Bench;
  held: Conductor;
  /** The other conductors the indicator can reach. */
  rest: readonly string[];
  onRecord: (...entered: Entered[]) => void;
}) {
  if (bench.tool !== 'indicator')
    return (
      <MeterPad
        key={bench.tool}
        label={bench.tool === 'ohms' ? 'Resistance' : 'Voltage'}
        tool={bench.tool}
        onValue={(value) => onRecord({ tool: bench.tool, points: [held.id, bench.second], value })}
      />
    );
  return (
    <div className="grid grid-cols-2 gap-2">
      {(['alert', 'quiet'] as const).map((value) => (
        <Button
          key={value}
          className="min-h-20 text-xl font-bold"
          onClick={() => onRecord({ tool: 'indicator', points: [held.id], value })}
        >
          {value}
        </Button>
      ))}
      {rest.length > 0 && (
        <>
          <Button className="col-span-2 min-h-14" onClick={() => onRecord(...sweepOf(rest, held.id))}>
            Alert on this one, the other {rest.length} quiet
          </Button>
          <Button
            className="col-span-2 min-h-14"
            onClick={() => onRecord(...sweepOf([...rest, held.id], null))}
          >
            All {rest.length + 1} quiet
          </Button>
        </>
      )}
    </div>
  );
}

/** Where the result was just touched: a wire that is live with its breakers off comes into sight at once. */
function LiveStop({ box }: { box: Box }) {
  const alive = useBoxPower(box.id)?.stops.some(({ code }) => code === 'live-while-off') ?? false;
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (alive) place.current?.scrollIntoView({ block: 'start' });
  }, [alive]);
  return (
    <div ref={place} className="scroll-mt-2 empty:hidden md:col-span-2">
      <StopCard box={box} only="live-while-off" />
    </div>
  );
}

/** What is entered; the rest of a reading is how the box stands. */
interface Entered {
  tool: Reading['tool'];
  points: string[];
  value: Reading['value'];
}

function sweepOf(quiet: readonly string[], alert: string | null): Entered[] {
  const point = (id: string, value: 'alert' | 'quiet'): Entered => ({
    tool: 'indicator',
    points: [id],
    value,
  });
  return [...(alert === null ? [] : [point(alert, 'alert')]), ...quiet.map((id) => point(id, 'quiet'))];
}

/** The other end of the conductor in hand, where its run says which it is: for ohms from end to end. */
function farOptions(
  box: Box,
  heldId: string,
  known: ReturnType<typeof useJob>['known'],
): { value: string; label: string }[] {
  const cableId = box.conductors.find((conductor) => conductor.id === heldId)?.cableId;
  const found = cableId ? runOf(box.id, cableId, known) : null;
  const other = found?.run.pairs?.find((pair) => pair.includes(heldId))?.find((id) => id !== heldId);
  const far = known.boxes.get(found?.far.boxId ?? '');
  return far && other ? [{ value: `${far.id}/${other}`, label: `its other end in ${far.name}` }] : [];
}

function farSwitches(box: Box, known: ReturnType<typeof useJob>['known']): { key: string; name: string }[] {
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
