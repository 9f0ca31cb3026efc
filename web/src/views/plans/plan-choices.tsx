import {
  type Box,
  boxesOfRoom,
  deviceName,
  type PlanChoice,
  placeKey,
  roomsInOrder,
  STRATEGY_WORDS,
  setParts,
  whyWords,
} from '@inventario/core';
import { Ban, CircleSlash2, Pin, PinOff } from 'lucide-react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import type { ReckonedPlan } from '../../data/planner.worker.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';

type Place = Pick<PlanChoice, 'boxId' | 'position'>;

const isAt = (entry: { boxId?: string | undefined; position?: number | undefined }, place: Place) =>
  entry.boxId === place.boxId && entry.position === place.position;

/** What is pinned and ruled out in the brief, and the ways to change it. */
function usePinsAndBans() {
  const { job, known, apply } = useJob();
  const { brief } = job;
  const pins = brief?.pins ?? [];
  const bans = brief?.bans ?? [];
  const nameOf = (id: string | null) => {
    const device = known.devices.get(id ?? '');
    return device ? deviceName(device) : 'the switch stays';
  };
  const set = (more: Partial<NonNullable<typeof brief>>, label: string) =>
    apply(setParts('job', job.id, job, { brief: { ...brief, ...more } }), label);
  return {
    bans,
    nameOf,
    isPinned: (place: Place) => pins.some((entry) => isAt(entry, place)),
    pin: ({ boxId, position, deviceId, strategy }: PlanChoice) =>
      set(
        {
          pins: [
            ...pins.filter((entry) => !isAt(entry, { boxId, position })),
            { boxId, position, deviceId: deviceId as string, strategy },
          ],
        },
        `Pin ${nameOf(deviceId)}`,
      ),
    unpin: (place: Place) => set({ pins: pins.filter((entry) => !isAt(entry, place)) }, 'Take the pin out'),
    ruleOut: ({ boxId, position, deviceId }: PlanChoice) =>
      set(
        { bans: [...bans, { deviceId: deviceId as string, boxId, position }] },
        `Rule out ${nameOf(deviceId)}`,
      ),
    allow: (ban: (typeof bans)[number]) =>
      set({ bans: bans.filter((entry) => entry !== ban) }, `Allow ${nameOf(ban.deviceId)} again`),
  };
}

/** The plan place by place; what is pinned or ruled out holds in every school. */
export function PlanChoices({ plan }: { plan: ReckonedPlan }) {
  const { job } = useJob();
  const choices = new Map(plan.choices.map((choice) => [placeKey(choice.boxId, choice.position), choice]));
  const unserved = new Map(plan.unserved.map((place) => [placeKey(place.boxId, place.position), place]));
  return (
    <section aria-label="Place by place" className="my-4">
      <h2 className="mb-1 text-lg font-bold">Place by place</h2>
      <RuledOut />
      {roomsInOrder(job).map((room) => {
        const places = boxesOfRoom(job, room.id).flatMap((box) =>
          box.positions.flatMap(({ index }) => {
            const key = placeKey(box.id, index);
            return choices.has(key) || unserved.has(key) ? [{ box, index, key }] : [];
          }),
        );
        if (places.length === 0) return null;
        return (
          <section key={room.id} aria-label={room.name} className="mb-2">
            <h3 className="text-sm font-bold text-soft">{room.name}</h3>
            <ul>
              {places.map(({ box, index, key }) => (
                <PlannedPlace
                  key={key}
                  box={box}
                  index={index}
                  choice={choices.get(key)}
                  nothing={unserved.get(key)}
                />
              ))}
            </ul>
          </section>
        );
      })}
    </section>
  );
}

function RuledOut() {
  const { known } = useJob();
  const { bans, allow, nameOf } = usePinsAndBans();
  if (bans.length === 0) return null;
  return (
    <ul aria-label="Ruled out" className="mb-2 flex flex-wrap gap-2 text-sm">
      {bans.map((ban) => (
        <li
          key={`${ban.deviceId}${ban.boxId ?? ''}${ban.position ?? ''}`}
          className="flex items-center gap-1 rounded-md border border-rule pl-2"
        >
          {nameOf(ban.deviceId)}
          {ban.boxId ? `, not at ${known.boxes.get(ban.boxId)?.name}` : ', nowhere'}
          <Button kind="quiet" onClick={() => allow(ban)}>
            Allow again
          </Button>
        </li>
      ))}
    </ul>
  );
}

function PlannedPlace({
  box,
  index,
  choice,
  nothing,
}: {
  box: Box;
  index: number;
  choice: PlanChoice | undefined;
  nothing: ReckonedPlan['unserved'][number] | undefined;
}) {
  const { job } = useJob();
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule py-1">
      <Link className="w-52 shrink-0 underline" to={paths.place(job.id, box.id, index)}>
        {box.name}
        {box.positions.length > 1 && `, ${index}`}
      </Link>
      {choice && <Chosen choice={choice} />}
      {nothing && (
        <span className="flex min-w-40 flex-1 items-center gap-2 text-soft">
          <CircleSlash2 aria-hidden className="size-4 shrink-0" /> Nothing: {whyWords(nothing.why)}
        </span>
      )}
      <HoldOrRuleOut box={box} index={index} choice={choice} />
    </li>
  );
}

function Chosen({ choice }: { choice: PlanChoice }) {
  const { job } = useJob();
  const { nameOf } = usePinsAndBans();
  const parts = choice.with.map((id) => job.catalogue.parts.find((part) => part.id === id)?.name ?? id);
  return (
    <span className="min-w-40 flex-1">
      <strong>{nameOf(choice.deviceId)}</strong>
      {choice.strategy !== 'single' && `, ${STRATEGY_WORDS[choice.strategy]}`}
      {parts.length > 0 && `, with ${parts.join(', ')}`}
    </span>
  );
}

/** What the installer knows better than any plan: this device here, or never here. */
function HoldOrRuleOut({ box, index, choice }: { box: Box; index: number; choice: PlanChoice | undefined }) {
  const { nameOf, isPinned, pin, unpin, ruleOut } = usePinsAndBans();
  const place = { boxId: box.id, position: index };
  const device = choice?.deviceId ? choice : null;
  return (
    <>
      {isPinned(place) ? (
        <Button icon={PinOff} onClick={() => unpin(place)}>
          Unpin
        </Button>
      ) : (
        device && (
          <Button
            kind="quiet"
            icon={Pin}
            iconOnly
            title="Hold this device here in every plan"
            onClick={() => pin(device)}
          >
            Pin {nameOf(device.deviceId)} at {box.name}
          </Button>
        )
      )}
      {device && (
        <Button
          kind="quiet"
          icon={Ban}
          iconOnly
          title="Never this device here"
          onClick={() => ruleOut(device)}
        >
          Rule out {nameOf(device.deviceId)} at {box.name}
        </Button>
      )}
    </>
  );
}
