import {
  type Box,
  boxesOfRoom,
  type LoadKind,
  type Position,
  plural,
  putPart,
  roomsInOrder,
  usualNeed,
} from '@inventario/core';
import { Sparkles } from 'lucide-react';
import { useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
import { Empty } from '../../ui/empty.js';
import { useSay } from '../../ui/say.js';

type Need = NonNullable<Position['need']>;

/**
 * What is to be controlled, place by place: one line each, with what is usual for what it works set at a
 * touch.
 */
export function PlaceNeeds() {
  const { job, known, apply, undo } = useJob();
  const say = useSay();
  const open = job.boxes.filter((box) => box.positions.some((position) => !told(position)));
  const set = (box: Box, positions: Position[], label: string) =>
    apply([putPart('box', box.id, { ...box, positions })], label, `need-${box.id}`);
  const usual = () => {
    const parts = open.map((box) =>
      putPart('box', box.id, {
        ...box,
        positions: box.positions.map((position) =>
          told(position)
            ? position
            : {
                ...position,
                need: {
                  ...usualNeed(position.loadIds.flatMap((id) => known.loads.get(id) ?? [])),
                  ...position.need,
                },
              },
        ),
      }),
    );
    apply(parts, 'The usual for every place');
    say(`The usual is set for ${plural(open.length, 'box', 'boxes')}.`, {
      label: 'Undo',
      run: undo,
    });
  };
  if (job.boxes.length === 0)
    return (
      <Empty title="No boxes yet">
        <p>Boxes are added in the walk, room by room; each then has its line here.</p>
      </Empty>
    );
  return (
    <>
      {open.length > 0 && (
        <p className="mb-2">
          <Button icon={Sparkles} onClick={usual}>
            Set the usual where nothing is said ({plural(open.length, 'box', 'boxes')})
          </Button>
        </p>
      )}
      {roomsInOrder(job).map((room) => {
        const boxes = boxesOfRoom(job, room.id);
        if (boxes.length === 0) return null;
        return (
          <section key={room.id} aria-label={room.name} className="mb-3">
            <h3 className="font-semibold text-soft">{room.name}</h3>
            <ul className="divide-y divide-rule">
              {boxes.flatMap((box) =>
                box.positions.map((position) => (
                  <li
                    key={`${box.id}/${position.index}`}
                    className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5"
                  >
                    <span className="min-w-44 flex-1">
                      {box.name}
                      {box.positions.length > 1 && `, position ${position.index}`}
                      <span className="block text-sm text-soft">
                        {position.loadIds.map((id) => known.loads.get(id)?.name).join(' and ') ||
                          'nothing recorded that it controls'}
                      </span>
                    </span>
                    <Needs
                      name={box.positions.length > 1 ? `${box.name}, position ${position.index}` : box.name}
                      need={position.need ?? {}}
                      kinds={position.loadIds.flatMap((id) => known.loads.get(id)?.kind ?? [])}
                      onChange={(need, label) =>
                        set(
                          box,
                          box.positions.map((entry) => (entry === position ? { ...entry, need } : entry)),
                          `${label} at ${box.name}`,
                        )
                      }
                    />
                  </li>
                )),
              )}
            </ul>
          </section>
        );
      })}
    </>
  );
}

function told(position: Position): boolean {
  return position.need?.smart === false || position.need?.dim !== undefined;
}

const NEXT_DIM = { no: 'nice', nice: 'must', must: 'no' } as const;
const DIM_WORDS = { no: 'no dimming', nice: 'dimming if it can', must: 'has to dim' } as const;

const FANS: ReadonlySet<LoadKind> = new Set(['fan-ac', 'fan-dc', 'fan-remote']);
const LAMPS: ReadonlySet<LoadKind> = new Set([
  'led',
  'resistive',
  'electronic',
  'magnetic',
  'fluorescent',
  'smart-bulb',
]);

interface Wish {
  label: string;
  on: boolean;
  next: Need;
  /** Asked at once for what the place works; the rest waits behind "more". */
  usual: boolean;
}

/**
 * The few wishes that go with what a place works, and what is set already; everything else one touch away.
 */
function Needs({
  name,
  need,
  kinds,
  onChange,
}: {
  name: string;
  need: Need;
  kinds: readonly LoadKind[];
  onChange: (need: Need, label: string) => void;
}) {
  const [all, setAll] = useState(false);
  const smart = need.smart === true;
  const senses = need.senses ?? [];
  const dim = need.dim ?? 'no';
  const has = (set: ReadonlySet<LoadKind>) => kinds.some((kind) => set.has(kind));
  const sense = (which: (typeof senses)[number], usual: boolean): Wish => ({
    label: which,
    on: senses.includes(which),
    next: {
      ...need,
      senses: senses.includes(which) ? senses.filter((entry) => entry !== which) : [...senses, which],
    },
    usual,
  });
  const wishes: Wish[] = [
    { label: DIM_WORDS[dim], on: dim !== 'no', next: { ...need, dim: NEXT_DIM[dim] }, usual: has(LAMPS) },
    {
      label: 'fan speeds',
      on: need.fanSpeed === true,
      next: { ...need, fanSpeed: !need.fanSpeed },
      usual: has(FANS),
    },
    sense('humidity', kinds.includes('exhaust-fan')),
    sense('motion', false),
    sense('daylight', false),
    {
      label: 'bulbs stay fed',
      on: need.constantPower === true,
      next: { ...need, constantPower: !need.constantPower },
      usual: kinds.includes('smart-bulb'),
    },
    {
      label: 'light in colours',
      on: need.colour === true,
      next: { ...need, colour: !need.colour },
      usual: false,
    },
    { label: 'scenes', on: need.scenes === true, next: { ...need, scenes: !need.scenes }, usual: false },
    {
      label: 'old switch stays',
      on: need.keepSwitch === true,
      next: { ...need, keepSwitch: !need.keepSwitch },
      usual: false,
    },
    {
      label: 'no connection',
      on: need.connected === false,
      next: { ...need, connected: need.connected === false },
      usual: false,
    },
  ];
  const chip = (label: string, on: boolean, next: Need) => (
    <button
      key={label}
      type="button"
      aria-pressed={on}
      onClick={() => onChange(next, label)}
      className={classes(
        'min-h-11 rounded-md border px-2.5 text-sm',
        on ? 'border-2 border-ink bg-well font-semibold' : 'border-edge hover:border-ink',
      )}
    >
      {label}
    </button>
  );
  return (
    <fieldset className="flex flex-wrap gap-1">
      <legend className="sr-only">{name}</legend>
      {chip(smart ? 'smart' : 'stays as it is', smart, { ...need, smart: !smart })}
      {smart &&
        wishes
          .filter((wish) => all || wish.usual || wish.on)
          .map((wish) => chip(wish.label, wish.on, wish.next))}
      {smart && !all && (
        <button type="button" className="min-h-11 px-2 text-sm underline" onClick={() => setAll(true)}>
          more <span className="sr-only">wishes for {name}</span>
        </button>
      )}
    </fieldset>
  );
}
