import {
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

/** The plan place by place; what is pinned or ruled out holds in every school. */
export function PlanChoices({ plan }: { plan: ReckonedPlan }) {
  const { job, known, apply } = useJob();
  const { brief } = job;
  const pins = brief?.pins ?? [];
  const bans = brief?.bans ?? [];
  const setBrief = (more: Partial<NonNullable<typeof brief>>, label: string) =>
    apply(setParts('job', job.id, job, { brief: { ...brief, ...more } }), label);
  const nameOf = (id: string | null) => {
    const device = known.devices.get(id ?? '');
    return device ? deviceName(device) : 'the switch stays';
  };
  const here = (
    entry: { boxId?: string | undefined; position?: number | undefined },
    place: { boxId: string; position: number },
  ) => entry.boxId === place.boxId && entry.position === place.position;
  const pin = (choice: PlanChoice) =>
    setBrief(
      {
        pins: [
          ...pins.filter((entry) => !here(entry, choice)),
          {
            boxId: choice.boxId,
            position: choice.position,
            deviceId: choice.deviceId as string,
            strategy: choice.strategy,
          },
        ],
      },
      `Pin ${nameOf(choice.deviceId)}`,
    );
  const choices = new Map(plan.choices.map((choice) => [placeKey(choice.boxId, choice.position), choice]));
  const unserved = new Map(plan.unserved.map((place) => [placeKey(place.boxId, place.position), place]));
  return (
    <section aria-label="Place by place" className="my-4">
      <h2 className="mb-1 text-lg font-bold">Place by place</h2>
      {bans.length > 0 && (
        <ul aria-label="Ruled out" className="mb-2 flex flex-wrap gap-2 text-sm">
          {bans.map((ban) => (
            <li
              key={`${ban.deviceId}${ban.boxId ?? ''}${ban.position ?? ''}`}
              className="flex items-center gap-1 rounded-md border border-rule pl-2"
            >
              {nameOf(ban.deviceId)}
              {ban.boxId ? `, not at ${known.boxes.get(ban.boxId)?.name}` : ', nowhere'}
              <Button
                kind="quiet"
                onClick={() =>
                  setBrief(
                    { bans: bans.filter((entry) => entry !== ban) },
                    `Allow ${nameOf(ban.deviceId)} again`,
                  )
                }
              >
                Allow again
              </Button>
            </li>
          ))}
        </ul>
      )}
      {roomsInOrder(job).map((room) => {
        const places = boxesOfRoom(job, room.id).flatMap((box) =>
          box.positions.flatMap((position) => {
            const key = placeKey(box.id, position.index);
            return choices.has(key) || unserved.has(key) ? [{ box, position, key }] : [];
          }),
        );
        if (places.length === 0) return null;
        return (
          <section key={room.id} aria-label={room.name} className="mb-2">
            <h3 className="text-sm font-bold text-soft">{room.name}</h3>
            <ul>
              {places.map(({ box, position, key }) => {
                const choice = choices.get(key);
                const place = unserved.get(key);
                const pinned = pins.some(
                  (entry) => entry.boxId === box.id && entry.position === position.index,
                );
                return (
                  <li
                    key={key}
                    className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule py-1"
                  >
                    <Link
                      className="w-52 shrink-0 underline"
                      to={paths.place(job.id, box.id, position.index)}
                    >
                      {box.name}
                      {box.positions.length > 1 && `, ${position.index}`}
                    </Link>
                    {choice && (
                      <span className="min-w-40 flex-1">
                        <strong>{nameOf(choice.deviceId)}</strong>
                        {choice.strategy !== 'single' && `, ${STRATEGY_WORDS[choice.strategy]}`}
                        {choice.with.length > 0 &&
                          ', with ' +
                            `${choice.with.map((id) => job.catalogue.parts.find((part) => part.id === id)?.name ?? id).join(', ')}`}
                      </span>
                    )}
                    {place && (
                      <span className="flex min-w-40 flex-1 items-center gap-2 text-soft">
                        <CircleSlash2 aria-hidden className="size-4 shrink-0" /> Nothing:{' '}
                        {whyWords(place.why)}
                      </span>
                    )}
                    {pinned ? (
                      <Button
                        icon={PinOff}
                        onClick={() =>
                          setBrief(
                            {
                              pins: pins.filter(
                                (entry) => !here(entry, { boxId: box.id, position: position.index }),
                              ),
                            },
                            'Take the pin out',
                          )
                        }
                      >
                        Unpin
                      </Button>
                    ) : (
                      choice?.deviceId && (
                        <Button
                          kind="quiet"
                          icon={Pin}
                          iconOnly
                          title="Hold this device here in every plan"
                          onClick={() => pin(choice)}
                        >
                          Pin {nameOf(choice.deviceId)} at {box.name}
                        </Button>
                      )
                    )}
                    {choice?.deviceId && (
                      <Button
                        kind="quiet"
                        icon={Ban}
                        iconOnly
                        title="Never this device here"
                        onClick={() =>
                          setBrief(
                            {
                              bans: [
                                ...bans,
                                {
                                  deviceId: choice.deviceId as string,
                                  boxId: box.id,
                                  position: position.index,
                                },
                              ],
                            },
                            `Rule out ${nameOf(choice.deviceId)}`,
                          )
                        }
                      >
                        Rule out {nameOf(choice.deviceId)} at {box.name}
                      </Button>
                    )}
                  </li>
                );
              })}
            </ul>
          </section>
        );
      })}
    </section>
  );
}
