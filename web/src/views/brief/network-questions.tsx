import { RADIO_WORDS, roomsInOrder } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import { FormNumber, FormPick } from '../../parts/form-fields.js';
import { PickOne } from '../../ui/choice.js';
import { type Brief, type QuestionProps, useLeft } from './question.js';
import { Wish, type WishOption } from './wish.js';

export function Assistants({ brief, onChange }: QuestionProps) {
  const { job } = useJob();
  const left = useLeft('possible');
  const platforms = brief.platforms ?? [];
  const wish = (name: string, want: 'must' | 'nice' | null): Partial<Brief> => ({
    platforms: [...platforms.filter((platform) => platform.name !== name), ...(want ? [{ name, want }] : [])],
  });
  return job.catalogue.platforms.map(({ name }) => {
    const now = platforms.find((platform) => platform.name === name)?.want ?? null;
    const option = (label: string, want: 'must' | 'nice' | null): WishOption => ({
      label,
      on: now === want,
      left: left({ ...brief, ...wish(name, want) }),
      toggle: () => onChange(wish(name, want), `${name}: ${label}`),
    });
    return (
      <Wish
        key={name}
        question={`Will you use ${name}?`}
        options={[option('We must have it', 'must'), option('It would be nice', 'nice'), option('No', null)]}
      />
    );
  });
}

export function Hubs({ brief, onChange }: QuestionProps) {
  const { job } = useJob();
  const owned = brief.hubsOwned ?? [];
  const rooms = roomsInOrder(job).map((room) => ({ value: room.id, label: room.name }));
  return (
    <>
      <Wish
        question="Is one of these in the house?"
        several
        options={[
          ...job.catalogue.hubs.map((hub) => ({
            label: hub.name,
            on: owned.includes(hub.id),
            toggle: () =>
              onChange(
                {
                  hubsOwned: owned.includes(hub.id)
                    ? owned.filter((id) => id !== hub.id)
                    : [...owned, hub.id],
                },
                `Hub: ${hub.name}`,
              ),
          })),
          {
            label: 'None of them',
            on: brief.hubsOwned?.length === 0,
            toggle: () => onChange({ hubsOwned: [] }, 'No hub in the house'),
          },
        ]}
      />
      {rooms.length > 0 && (
        <div className="grid gap-2 sm:grid-cols-3">
          {job.catalogue.hubs.map((hub) => (
            <PickOne
              key={hub.id}
              label={`${hub.name} stands, or would stand, in`}
              value={brief.hubRooms?.[hub.id] ?? ''}
              placeholder="not said"
              options={rooms}
              onChoice={(roomId) =>
                onChange({ hubRooms: { ...brief.hubRooms, [hub.id]: roomId } }, `Where ${hub.name} stands`)
              }
            />
          ))}
        </div>
      )}
    </>
  );
}

const RADIOS = ['wifi', 'mesh', 'subghz', 'maker', 'ble'] as const;

export function Radios({ brief, onChange }: QuestionProps) {
  const left = useLeft('possible');
  const radios = brief.radios ?? [];
  return (
    <Wish
      question="Which of these may the devices use?"
      several
      options={RADIOS.map((radio) => ({
        label: RADIO_WORDS[radio],
        on: radios.includes(radio),
        left: left({ ...brief, radios: [radio] }),
        toggle: () =>
          onChange(
            {
              radios: radios.includes(radio)
                ? radios.filter((entry) => entry !== radio)
                : RADIOS.filter((entry) => entry === radio || radios.includes(entry)),
            },
            `Radio: ${RADIO_WORDS[radio]}`,
          ),
      }))}
    />
  );
}

export function Router({ brief, onChange, control }: QuestionProps) {
  const { job } = useJob();
  const wifi = brief.wifi ?? {};
  const set = (more: Partial<typeof wifi>) => onChange({ wifi: { ...wifi, ...more } }, 'The router');
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <FormNumber
        control={control}
        name="wifi.clientsNow"
        label="Things on the Wi-Fi now"
        whole
        max={100_000}
        emptyIsUntold
      />
      <FormNumber
        control={control}
        name="wifi.clientLimit"
        label="How many the router can take"
        whole
        max={100_000}
        emptyIsUntold
      />
      <Wish
        question="Does it offer 2.4 GHz?"
        options={[
          { label: 'Yes', on: wifi.band24 === true, toggle: () => set({ band24: true }) },
          { label: 'No', on: wifi.band24 === false, toggle: () => set({ band24: false }) },
        ]}
      />
      <FormPick
        control={control}
        name="wifi.routerRoom"
        label="It stands in"
        untold="not said"
        options={roomsInOrder(job).map((room) => ({ value: room.id, label: room.name }))}
      />
    </div>
  );
}
