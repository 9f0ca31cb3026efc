import { useJob } from '../../data/job-context.js';
import { FormNumber } from '../../parts/form-fields.js';
import { type Brief, type QuestionProps, useLeft } from './question.js';
import { Wish, type WishOption } from './wish.js';

type Feel = NonNullable<Brief['feel']>;

const ACTUATORS = ['paddle', 'toggle', 'buttons', 'touch', 'dial'] as const;

export function Switches({ brief, onChange }: QuestionProps) {
  const left = useLeft('liked');
  const feel: Feel = brief.feel ?? {};
  const set = (more: Partial<Feel>) => onChange({ feel: { ...feel, ...more } }, 'The feel of a switch');
  const liked = feel.actuators ?? [];
  const yesNo = (
    more: (on: boolean) => Partial<Feel>,
    now: boolean | undefined,
    yes: string,
    no: string,
  ): WishOption[] => [
    {
      label: yes,
      on: now === true,
      left: left({ ...brief, feel: { ...feel, ...more(true) } }),
      toggle: () => set(more(true)),
    },
    {
      label: no,
      on: now === false,
      left: left({ ...brief, feel: { ...feel, ...more(false) } }),
      toggle: () => set(more(false)),
    },
  ];
  return (
    <>
      <Wish
        question="What do you like to press?"
        several
        options={ACTUATORS.map((actuator) => ({
          label: actuator,
          on: liked.includes(actuator),
          left: left({ ...brief, feel: { ...feel, actuators: [actuator] } }),
          toggle: () =>
            set({
              actuators: liked.includes(actuator)
                ? liked.filter((entry) => entry !== actuator)
                : [...liked, actuator],
            }),
        }))}
      />
      <Wish
        question="May it click?"
        options={yesNo(
          (on) => ({ silent: !on }),
          feel.silent === undefined ? undefined : !feel.silent,
          'It may',
          'Silent, please',
        )}
      />
      <Wish
        question="Should up always be on?"
        options={yesNo((on) => ({ upIsOn: on }), feel.upIsOn, 'Yes', 'Does not matter')}
      />
      <Wish
        question="A microphone in the wall?"
        options={yesNo((on) => ({ microphone: on }), feel.microphone, 'That is fine', 'None, please')}
      />
    </>
  );
}

export function Light({ brief, onChange }: QuestionProps) {
  const left = useLeft('liked');
  const feel: Feel = brief.feel ?? {};
  const option = (label: string, more: Partial<Feel>, on: boolean): WishOption => ({
    label,
    on,
    left: left({ ...brief, feel: { ...feel, ...more } }),
    toggle: () => onChange({ feel: { ...feel, ...more } }, label),
  });
  return (
    <>
      <Wish
        question="A small light in the switch?"
        options={[
          option('Any', { indicator: 'any' }, feel.indicator === 'any'),
          option('One that can be dimmed', { indicator: 'dimmable' }, feel.indicator === 'dimmable'),
          option('None', { indicator: 'none' }, feel.indicator === 'none'),
        ]}
      />
      <Wish
        question="How bright should a lamp come on?"
        options={[
          option('As it was last', { onLevel: 'last' }, feel.onLevel === 'last'),
          option('Full', { onLevel: 'full' }, feel.onLevel === 'full'),
          option('At a set level', { onLevel: 'preset' }, feel.onLevel === 'preset'),
        ]}
      />
    </>
  );
}

export function Colour({ brief, onChange }: QuestionProps) {
  const { job } = useJob();
  const left = useLeft('liked');
  const colours = [
    ...new Set(
      job.catalogue.devices
        .filter((device) => device.practices.includes(job.practice))
        .flatMap((device) => device.colours ?? []),
    ),
  ];
  return (
    <Wish
      question="Which colour should they be?"
      options={colours.map((colour) => ({
        label: colour,
        on: brief.colour === colour,
        left: left({ ...brief, colour }),
        toggle: () => onChange({ colour }, `Colour: ${colour}`),
      }))}
    />
  );
}

const CONNECTORS = {
  'twist-on': 'twist-on',
  lever: 'lever',
  'terminal-block': 'terminal block',
  crimp: 'crimp',
} as const;

export function Money({ brief, onChange, control }: QuestionProps) {
  const { job } = useJob();
  const kinds = brief.connectors ?? [];
  const money = { currency: job.money?.currency };
  return (
    <>
      <div className="mb-3 grid gap-3 sm:grid-cols-3">
        <FormNumber
          control={control}
          name="budget"
          label="What may it cost?"
          money={money}
          max={100_000_000}
          emptyIsUntold
        />
        <FormNumber
          control={control}
          name="labourPerHour"
          label="An hour of work"
          money={money}
          max={100_000}
          emptyIsUntold
        />
        <FormNumber
          control={control}
          name="spares"
          label="Spares of each model to keep"
          whole
          max={1000}
          emptyIsUntold
        />
      </div>
      <Wish
        question="Buy one and try it before the rest?"
        options={[
          {
            label: 'Yes',
            on: brief.trialFirst === true,
            toggle: () => onChange({ trialFirst: true }, 'A trial unit first'),
          },
          {
            label: 'No need',
            on: brief.trialFirst === false,
            toggle: () => onChange({ trialFirst: false }, 'No trial unit'),
          },
        ]}
      />
      <Wish
        question="Connectors you work with, the first preferred"
        several
        options={(Object.keys(CONNECTORS) as (keyof typeof CONNECTORS)[]).map((kind) => ({
          label: kinds.includes(kind) ? `${kinds.indexOf(kind) + 1}. ${CONNECTORS[kind]}` : CONNECTORS[kind],
          on: kinds.includes(kind),
          toggle: () =>
            onChange(
              {
                connectors: kinds.includes(kind) ? kinds.filter((entry) => entry !== kind) : [...kinds, kind],
              },
              'Connectors',
            ),
        }))}
      />
    </>
  );
}
