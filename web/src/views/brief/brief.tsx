import {
  answeredQuestions,
  type EditPart,
  type Job,
  type PossibleDevices,
  possibleDevices,
  QUESTIONS,
  type Question,
  RADIO_WORDS,
  roomsInOrder,
  setParts,
  usualBrief,
} from '@inventario/core';
import { ArrowDown, CircleCheck, CircleDashed } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { Bench } from '../../app/bench.js';
import { paths } from '../../app/paths.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import { Pick } from '../../ui/choice.js';
import { NumberField } from '../../ui/field.js';
import { useSay } from '../../ui/say.js';
import { PlaceNeeds } from './place-needs.js';
import { Wish, type WishOption } from './wish.js';

type Brief = NonNullable<Job['brief']>;
type Feel = NonNullable<Brief['feel']>;

const TITLES: Record<Question, string> = {
  assistants: 'Apps and assistants',
  hubs: 'Hubs there already',
  radios: 'How it may talk',
  router: 'The router',
  switches: 'The feel of a switch',
  light: 'Its light, and how it comes on',
  colour: 'Colour',
  money: 'Money and spares',
  places: 'Room by room',
};

/** What does the client want, and what does that rule out? */
export function BriefView() {
  const { job, apply } = useJob();
  const say = useSay();
  const brief: Brief = job.brief ?? {};
  const answered = answeredQuestions(job);
  const next = QUESTIONS.find((question) => !answered.has(question));
  const left = possibleDevices(job, brief);
  const change = (more: Partial<Brief>, label: string) => {
    const hindered = apply(setParts('job', job.id, job, { brief: { ...brief, ...more } }) as EditPart[], label, 'brief');
    if (hindered) say(`That cannot be recorded: ${hindered}.`);
  };
  const go = (question: Question) => document.getElementById(`ask-${question}`)?.scrollIntoView({ behavior: 'smooth', block: 'start' });
  return (
    <Bench
      title="Brief"
      glance={`${answered.size} of ${QUESTIONS.length} asked; ${left.possible} devices left`}
      reckoning={
        <BriefReckoning
          left={left}
          answered={answered}
          next={next}
          onGo={go}
          onUsual={() => change(usualBrief(brief), 'The usual where nothing was asked')}
        />
      }
    >
      <h1 className="mb-1 text-xl font-bold">What does the client want?</h1>
      <p className="mb-4 max-w-prose">
        Ask in these words; every answer says how many devices it leaves. Likes warn later, musts rule out. What is not asked stays open.
      </p>
      <div className="flex max-w-4xl flex-col gap-5">
        <Asked question="assistants" answered={answered}>
          <Assistants brief={brief} onChange={change} />
        </Asked>
        <Asked question="hubs" answered={answered}>
          <Hubs brief={brief} onChange={change} />
        </Asked>
        <Asked question="radios" answered={answered}>
          <Radios brief={brief} onChange={change} />
        </Asked>
        <Asked question="router" answered={answered}>
          <Router brief={brief} onChange={change} />
        </Asked>
        <Asked question="switches" answered={answered}>
          <Switches brief={brief} onChange={change} />
        </Asked>
        <Asked question="light" answered={answered}>
          <Light brief={brief} onChange={change} />
        </Asked>
        <Asked question="colour" answered={answered}>
          <Colour brief={brief} onChange={change} />
        </Asked>
        <Asked question="money" answered={answered}>
          <Money brief={brief} onChange={change} />
        </Asked>
        <Asked question="places" answered={answered}>
          <PlaceNeeds />
        </Asked>
      </div>
    </Bench>
  );
}

function Asked({ question, answered, children }: { question: Question; answered: ReadonlySet<Question>; children: React.ReactNode }) {
  return (
    <section id={`ask-${question}`} aria-label={TITLES[question]} className="scroll-mt-3 rounded-lg border border-rule bg-sheet p-3">
      <h2 className="mb-2 flex items-center gap-2 text-lg font-bold">
        {answered.has(question) ? (
          <CircleCheck aria-hidden className="size-5" />
        ) : (
          <CircleDashed aria-hidden className="size-5 text-soft" />
        )}
        {TITLES[question]}
        {!answered.has(question) && <span className="text-sm font-normal text-soft">not asked yet</span>}
      </h2>
      {children}
    </section>
  );
}

/** Questions that have a usual answer; the others only the client can answer. */
const USUAL: readonly Question[] = ['radios', 'switches', 'light', 'colour'];

function BriefReckoning({
  left,
  answered,
  next,
  onGo,
  onUsual,
}: {
  left: PossibleDevices;
  answered: ReadonlySet<Question>;
  next: Question | undefined;
  onGo: (question: Question) => void;
  onUsual: () => void;
}) {
  const { job } = useJob();
  const usual = USUAL.filter((question) => !answered.has(question));
  return (
    <div className="flex flex-col gap-3">
      {next ? (
        <Button kind="main" icon={ArrowDown} onClick={() => onGo(next)}>
          Ask next: {TITLES[next].toLowerCase()}
        </Button>
      ) : (
        <Link className="underline" to={paths.plans(job.id)}>
          Everything is asked: see the plans for the house
        </Link>
      )}
      {usual.length > 0 && (
        <Button onClick={onUsual}>
          Set the usual for {usual.length === 1 ? 'one more' : `${usual.length} more`}:{' '}
          {usual.map((question) => TITLES[question].toLowerCase()).join(', ')}
        </Button>
      )}
      <dl className="grid grid-cols-[1fr_auto] gap-y-1">
        <dt>Devices made for this practice</dt>
        <dd className="text-right font-semibold tabular-nums">{left.made}</dd>
        <dt>left by the musts</dt>
        <dd className="text-right font-semibold tabular-nums">{left.possible}</dd>
        <dt>and to their liking in everything</dt>
        <dd className="text-right font-semibold tabular-nums">{left.liked}</dd>
      </dl>
      <ul className="flex flex-col">
        {QUESTIONS.map((question) => (
          <li key={question}>
            <button
              type="button"
              className="flex min-h-11 w-full items-center gap-2 text-left hover:bg-well"
              onClick={() => onGo(question)}
            >
              {answered.has(question) ? (
                <CircleCheck aria-hidden className="size-5" />
              ) : (
                <CircleDashed aria-hidden className="size-5 text-soft" />
              )}
              <span>{TITLES[question]}</span>
              <span className="sr-only">{answered.has(question) ? 'asked' : 'not asked yet'}</span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

interface Part {
  brief: Brief;
  onChange: (more: Partial<Brief>, label: string) => void;
}

/** How many devices an answer would leave; `liked` counts the likes too. */
function useLeft(which: 'possible' | 'liked') {
  const { job } = useJob();
  const { practice, catalogue } = job;
  return useMemo(() => (brief: Brief) => possibleDevices({ practice, catalogue }, brief)[which], [practice, catalogue, which]);
}

function Assistants({ brief, onChange }: Part) {
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

function Hubs({ brief, onChange }: Part) {
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
                { hubsOwned: owned.includes(hub.id) ? owned.filter((id) => id !== hub.id) : [...owned, hub.id] },
                `Hub: ${hub.name}`,
              ),
          })),
          { label: 'None of them', on: brief.hubsOwned?.length === 0, toggle: () => onChange({ hubsOwned: [] }, 'No hub in the house') },
        ]}
      />
      {rooms.length > 0 && (
        <div className="grid gap-2 sm:grid-cols-3">
          {job.catalogue.hubs.map((hub) => (
            <Pick
              key={hub.id}
              label={`${hub.name} stands, or would stand, in`}
              value={brief.hubRooms?.[hub.id] ?? ''}
              placeholder="not said"
              options={rooms}
              onChoice={(roomId) => onChange({ hubRooms: { ...brief.hubRooms, [hub.id]: roomId } }, `Where ${hub.name} stands`)}
            />
          ))}
        </div>
      )}
    </>
  );
}

const RADIOS = ['wifi', 'mesh', 'subghz', 'maker', 'ble'] as const;

function Radios({ brief, onChange }: Part) {
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

function Router({ brief, onChange }: Part) {
  const { job } = useJob();
  const wifi = brief.wifi ?? {};
  const set = (more: Partial<typeof wifi>) => onChange({ wifi: { ...wifi, ...more } }, 'The router');
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <NumberField label="Things on the Wi-Fi now" whole value={wifi.clientsNow} onNumber={(clientsNow) => set({ clientsNow })} />
      <NumberField label="How many the router can take" whole value={wifi.clientLimit} onNumber={(clientLimit) => set({ clientLimit })} />
      <Wish
        question="Does it offer 2.4 GHz?"
        options={[
          { label: 'Yes', on: wifi.band24 === true, toggle: () => set({ band24: true }) },
          { label: 'No', on: wifi.band24 === false, toggle: () => set({ band24: false }) },
        ]}
      />
      <Pick
        label="It stands in"
        value={wifi.routerRoom ?? ''}
        placeholder="not said"
        options={roomsInOrder(job).map((room) => ({ value: room.id, label: room.name }))}
        onChoice={(routerRoom) => set({ routerRoom })}
      />
    </div>
  );
}

const ACTUATORS = ['paddle', 'toggle', 'buttons', 'touch', 'dial'] as const;

function Switches({ brief, onChange }: Part) {
  const left = useLeft('liked');
  const feel: Feel = brief.feel ?? {};
  const set = (more: Partial<Feel>) => onChange({ feel: { ...feel, ...more } }, 'The feel of a switch');
  const liked = feel.actuators ?? [];
  const yesNo = (more: (on: boolean) => Partial<Feel>, now: boolean | undefined, yes: string, no: string): WishOption[] => [
    { label: yes, on: now === true, left: left({ ...brief, feel: { ...feel, ...more(true) } }), toggle: () => set(more(true)) },
    { label: no, on: now === false, left: left({ ...brief, feel: { ...feel, ...more(false) } }), toggle: () => set(more(false)) },
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
          toggle: () => set({ actuators: liked.includes(actuator) ? liked.filter((entry) => entry !== actuator) : [...liked, actuator] }),
        }))}
      />
      <Wish
        question="May it click?"
        options={yesNo((on) => ({ silent: !on }), feel.silent === undefined ? undefined : !feel.silent, 'It may', 'Silent, please')}
      />
      <Wish question="Should up always be on?" options={yesNo((on) => ({ upIsOn: on }), feel.upIsOn, 'Yes', 'Does not matter')} />
      <Wish
        question="A microphone in the wall?"
        options={yesNo((on) => ({ microphone: on }), feel.microphone, 'That is fine', 'None, please')}
      />
    </>
  );
}

function Light({ brief, onChange }: Part) {
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

function Colour({ brief, onChange }: Part) {
  const { job } = useJob();
  const left = useLeft('liked');
  const colours = [
    ...new Set(job.catalogue.devices.filter((device) => device.practices.includes(job.practice)).flatMap((device) => device.colours ?? [])),
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

const CONNECTORS = { 'twist-on': 'twist-on', lever: 'lever', 'terminal-block': 'terminal block', crimp: 'crimp' } as const;

function Money({ brief, onChange }: Part) {
  const { job, apply } = useJob();
  const kinds = brief.connectors ?? [];
  const money = job.money ?? { currency: 'USD', labourPerHour: 0 };
  const setMoney = (more: Partial<typeof money>) =>
    apply(setParts('job', job.id, job, { money: { ...money, ...more } }), 'The labour rate', 'brief');
  return (
    <>
      <div className="mb-3 grid gap-3 sm:grid-cols-3">
        <NumberField
          label="What may it cost?"
          unit={job.money?.currency ?? ''}
          value={brief.budget === undefined ? undefined : brief.budget / 100}
          onNumber={(amount) => onChange({ budget: Math.round(amount * 100) }, 'Budget')}
        />
        <NumberField
          label="An hour of work"
          unit={job.money?.currency ?? ''}
          value={job.money === undefined ? undefined : job.money.labourPerHour / 100}
          onNumber={(amount) => setMoney({ labourPerHour: Math.round(amount * 100) })}
        />
        <NumberField
          label="Spares of each model to keep"
          whole
          value={brief.spares}
          onNumber={(spares) => onChange({ spares }, 'Spares')}
        />
      </div>
      <Wish
        question="Buy one and try it before the rest?"
        options={[
          { label: 'Yes', on: brief.trialFirst === true, toggle: () => onChange({ trialFirst: true }, 'A trial unit first') },
          { label: 'No need', on: brief.trialFirst === false, toggle: () => onChange({ trialFirst: false }, 'No trial unit') },
        ]}
      />
      <Wish
        question="Connectors you work with, the first preferred"
        several
        options={(Object.keys(CONNECTORS) as (keyof typeof CONNECTORS)[]).map((kind) => ({
          label: kinds.includes(kind) ? `${kinds.indexOf(kind) + 1}. ${CONNECTORS[kind]}` : CONNECTORS[kind],
          on: kinds.includes(kind),
          toggle: () =>
            onChange({ connectors: kinds.includes(kind) ? kinds.filter((entry) => entry !== kind) : [...kinds, kind] }, 'Connectors'),
        }))}
      />
    </>
  );
}
