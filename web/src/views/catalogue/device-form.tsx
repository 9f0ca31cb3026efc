import {
  type Device,
  LOAD_WORDS,
  type LoadKind,
  type Problem,
  RADIO_WORDS,
  STRATEGY_WORDS,
  type Strategy,
  takeIn,
  WIRE,
  type WireSize,
} from '@inventario/core';
import { type FormEvent, type ReactNode, useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { INSULATION } from '../../drawings/insulation.js';
import { Button } from '../../ui/button.js';
import { Pick, PickSeveral, Segments } from '../../ui/choice.js';
import { WideDialog } from '../../ui/dialog.js';
import { NumberField, TextField } from '../../ui/field.js';
import { RowList } from '../../ui/row-list.js';
import { Toggle } from '../../ui/toggle.js';
import { deviceSettings, pairingSteps } from './pairing-steps.js';

type Terminal = Device['terminals'][number];
type Channel = Device['channels'][number];
type Rating = Channel['ratings'][number];
type Many = NonNullable<Device['multiLocation']>[number];

const options = <const Value extends string>(values: readonly Value[], words: Partial<Record<Value, string>> = {}) =>
  values.map((value) => ({ value, label: words[value] ?? value }));

const KINDS = Object.keys(LOAD_WORDS) as LoadKind[];
const SIZES = Object.keys(WIRE) as WireSize[];
const COLOURS = Object.keys(INSULATION) as NonNullable<Terminal['colour']>[];
const OPTIONAL = { value: '', label: 'not said' };

/** A data sheet typed in from the maker's leaflet. What does not hold together is named by its field, and nothing typed is lost. */
export function DeviceForm({ device: first, onClose }: { device: Device; onClose: () => void }) {
  const { job, apply } = useJob();
  const [device, setDevice] = useState(first);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const set = (more: Partial<Device>) => setDevice(pruned({ ...device, ...more }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const unnamed = (['maker', 'model', 'family'] as const).filter((field) => device[field].trim() === '');
    if (unnamed.length > 0) {
      setProblems(unnamed.map((field) => ({ path: `/${field}`, message: 'is empty', severity: 'error' })));
      return;
    }
    const taken = takeIn({ devices: [device] }, job);
    if (!taken.ok) {
      setProblems(taken.problems.map((problem) => ({ ...problem, path: problem.path.replace(/^\/catalogue\/devices\/\d+/, '') })));
      return;
    }
    apply(taken.parts, `Data sheet: ${device.maker} ${device.model}`);
    onClose();
  };
  return (
    <WideDialog title={`Data sheet: ${`${device.maker} ${device.model}`.trim() || 'a new device'}`} open onClose={onClose}>
      <form onSubmit={submit} className="flex flex-col gap-4">
        <Basics device={device} set={set} />
        <Body device={device} set={set} />
        <RadioAndPower device={device} set={set} />
        <Living device={device} set={set} />
        <Terminals device={device} set={set} />
        <Channels device={device} set={set} />
        <SeveralPlaces device={device} set={set} />
        <Handling device={device} set={set} />
        {problems.length > 0 && (
          <ul role="alert" className="rounded-md border border-stop p-2 text-stop">
            {problems.map((problem) => (
              <li key={`${problem.path}${problem.message}`}>
                <strong>{problem.path || 'The sheet'}</strong> {problem.message}
              </li>
            ))}
          </ul>
        )}
        <Button kind="main" type="submit">
          Keep the data sheet
        </Button>
      </form>
    </WideDialog>
  );
}

/** Without the fields that were emptied: absent and empty are two things in the file. */
function pruned(device: Device): Device {
  return Object.fromEntries(Object.entries(device).filter(([, value]) => value !== undefined)) as Device;
}

interface Section {
  device: Device;
  set: (more: Partial<Device>) => void;
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset className="rounded-md border border-rule p-3">
      <legend className="px-1 font-bold">{title}</legend>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">{children}</div>
    </fieldset>
  );
}

function Basics({ device, set }: Section) {
  const { job } = useJob();
  return (
    <Group title="What it is">
      <TextField label="Maker" value={device.maker} onText={(maker) => set({ maker })} maxLength={100} autoFocus />
      <TextField label="Model" value={device.model} onText={(model) => set({ model })} maxLength={100} />
      <TextField label="Family" value={device.family} onText={(family) => set({ family })} maxLength={100} />
      <NumberField
        label="Price"
        unit={job.money?.currency ?? ''}
        value={device.price / 100}
        onNumber={(price) => set({ price: Math.round(price * 100) })}
      />
      <PickSeveral
        label="Made for"
        placeholder="no practice"
        values={device.practices}
        options={options(['us', 'ca', 'gb', 'modular'])}
        onChoice={(practices) => set({ practices: practices as Device['practices'] })}
      />
      <NumberField
        label="Lowest voltage"
        unit="V"
        value={device.volts[0]}
        onNumber={(low) => set({ volts: [low, device.volts[1] ?? low] })}
      />
      <NumberField
        label="Highest voltage"
        unit="V"
        value={device.volts[1]}
        onNumber={(high) => set({ volts: [device.volts[0] ?? high, high] })}
      />
      <Segments
        label="Neutral"
        value={device.needs.neutral ? 'needed' : 'not needed'}
        options={options(['needed', 'not needed'])}
        onChoice={(need) => set({ needs: { ...device.needs, neutral: need === 'needed' } })}
      />
      <Pick
        label="Ground"
        value={device.needs.ground}
        options={options(['required', 'recommended', 'none'])}
        onChoice={(ground) => set({ needs: { ...device.needs, ground } })}
      />
      <Toggle
        label="Line and load interchangeable"
        on={device.interchangeableLineLoad === true}
        onToggle={(on) => set({ interchangeableLineLoad: on })}
      />
    </Group>
  );
}

function Body({ device, set }: Section) {
  const { body } = device;
  return (
    <Group title="Body, face and plate">
      <Pick
        label="Goes"
        value={device.mount}
        options={options(['box', 'fitting', 'surface'], { box: 'in the box', fitting: 'at the fitting', surface: 'on the wall' })}
        onChoice={(mount) => set({ mount })}
      />
      <NumberField label="Gangs" whole min={1} value={device.gangs} onNumber={(gangs) => set({ gangs })} />
      <NumberField label="Width behind the face" unit="mm" value={body.width} onNumber={(width) => set({ body: { ...body, width } })} />
      <NumberField label="Height" unit="mm" value={body.height} onNumber={(height) => set({ body: { ...body, height } })} />
      <NumberField label="Depth" unit="mm" value={body.depth} onNumber={(depth) => set({ body: { ...body, depth } })} />
      <TextField label="Plate opening" value={device.opening ?? ''} onText={(opening) => set({ opening: opening || undefined })} />
      <TextField label="Shade" value={device.shade ?? ''} onText={(shade) => set({ shade: shade || undefined })} />
      <NumberField
        label="Face proud of the plate"
        unit="mm"
        min={-20}
        value={device.faceProud}
        onNumber={(faceProud) => set({ faceProud })}
      />
      <TextField
        label="Colours, with commas"
        value={(device.colours ?? []).join(', ')}
        onText={(text) => set({ colours: wordsOf(text) })}
      />
      <Toggle label="Brings its own plate" on={device.ownPlate === true} onToggle={(ownPlate) => set({ ownPlate })} />
      <Toggle label="Side fins that come off" on={device.fins === true} onToggle={(fins) => set({ fins })} />
    </Group>
  );
}

/** Words as typed; a comma at the end is kept while the next word is on its way. */
function wordsOf(text: string): string[] {
  return text.split(',').map((word, at, all) => (at === all.length - 1 ? word.trimStart() : word.trim()));
}

function RadioAndPower({ device, set }: Section) {
  const { job } = useJob();
  return (
    <Group title="Radio, assistants and power">
      <Pick
        label="Radio"
        value={device.radio}
        options={options(['wifi', 'mesh', 'subghz', 'maker', 'ble', 'none'], RADIO_WORDS)}
        onChoice={(radio) => set({ radio })}
      />
      <Pick
        label="Works through the hub"
        value={device.hubId ?? ''}
        options={[{ value: '', label: 'none needed' }, ...job.catalogue.hubs.map((hub) => ({ value: hub.id, label: hub.name }))]}
        onChoice={(hubId) => set({ hubId: hubId || undefined })}
      />
      <PickSeveral
        label="Assistants"
        placeholder="none"
        values={device.platforms}
        options={job.catalogue.platforms.map(({ name }) => ({ value: name, label: name }))}
        onChoice={(platforms) => set({ platforms })}
      />
      <PickSeveral
        label="Wi-Fi bands"
        placeholder="not said"
        values={device.wifiBands ?? []}
        options={options(['2.4', '5'], { '2.4': '2.4 GHz', '5': '5 GHz' })}
        onChoice={(wifiBands) => set({ wifiBands })}
      />
      <Pick
        label="Controlled through"
        value={device.control ?? ''}
        options={[
          OPTIONAL,
          ...options(['local', 'maker-cloud', 'both'], { local: 'the house', 'maker-cloud': 'the maker’s server', both: 'both' }),
        ]}
        onChoice={(control) => set({ control: (control || undefined) as Device['control'] })}
      />
      <Pick
        label="Power"
        value={device.power ?? ''}
        options={[OPTIONAL, ...options(['mains', 'battery'])]}
        onChoice={(power) => set({ power: (power || undefined) as Device['power'] })}
      />
      <NumberField label="Idle" unit="W" value={device.standbyW} onNumber={(standbyW) => set({ standbyW })} />
      <NumberField label="Battery lasts" unit="years" value={device.batteryYears} onNumber={(batteryYears) => set({ batteryYears })} />
      <Toggle label="Repeats the mesh" on={device.repeater === true} onToggle={(repeater) => set({ repeater })} />
    </Group>
  );
}

function Living({ device, set }: Section) {
  return (
    <Group title="To live with">
      <Pick
        label="What one presses"
        value={device.actuator ?? ''}
        options={[OPTIONAL, ...options(['paddle', 'toggle', 'buttons', 'touch', 'dial'])]}
        onChoice={(actuator) => set({ actuator: (actuator || undefined) as Device['actuator'] })}
      />
      <Pick
        label="Its light"
        value={device.indicator ?? ''}
        options={[OPTIONAL, ...options(['none', 'fixed', 'dimmable'])]}
        onChoice={(indicator) => set({ indicator: (indicator || undefined) as Device['indicator'] })}
      />
      <Pick
        label="Comes on at"
        value={device.onLevel ?? ''}
        options={[OPTIONAL, ...options(['last', 'full', 'preset'])]}
        onChoice={(onLevel) => set({ onLevel: (onLevel || undefined) as Device['onLevel'] })}
      />
      <PickSeveral
        label="Senses"
        placeholder="none"
        values={device.senses ?? []}
        options={options(['motion', 'humidity', 'daylight'])}
        onChoice={(senses) => set({ senses: senses as Device['senses'] })}
      />
      <Toggle label="Clicks" on={device.audible === true} onToggle={(audible) => set({ audible })} />
      <Toggle label="Up is always on" on={device.upIsOn === true} onToggle={(upIsOn) => set({ upIsOn })} />
      <Toggle label="Has a microphone" on={device.microphone === true} onToggle={(microphone) => set({ microphone })} />
      <Toggle label="Scenes" on={device.scenes === true} onToggle={(scenes) => set({ scenes })} />
      <Toggle label="Steers bulbs" on={device.bulbController === true} onToggle={(bulbController) => set({ bulbController })} />
      {device.bulbController && (
        <TextField
          label="Bulb families, with commas"
          value={(device.bulbFamilies ?? []).join(', ')}
          onText={(text) => set({ bulbFamilies: wordsOf(text) })}
        />
      )}
    </Group>
  );
}

function Terminals({ device, set }: Section) {
  const fresh = (): Terminal => ({ id: `T${device.terminals.length + 1}`, role: 'load', form: 'lead' });
  return (
    <RowList
      title="Terminals and leads"
      rows={device.terminals}
      add={{ label: 'Add a terminal', make: fresh }}
      onRows={(terminals) => set({ terminals })}
      nameOf={(terminal) => terminal.mark || terminal.id}
    >
      {(terminal, change) => (
        <>
          <TextField label="Id" value={terminal.id} onText={(id) => change({ id })} maxLength={64} />
          <TextField label="Mark on it" value={terminal.mark ?? ''} onText={(mark) => change({ mark })} />
          <Pick
            label="For"
            value={terminal.role}
            options={options(['line', 'load', 'neutral', 'ground', 'traveler', 'sense'])}
            onChoice={(role) => change({ role })}
          />
          <Pick
            label="Form"
            value={terminal.form}
            options={options(['lead', 'screw', 'clamp', 'push-in'])}
            onChoice={(form) => change({ form })}
          />
          <Pick
            label="Lead’s colour"
            value={terminal.colour ?? 'unknown'}
            options={options(COLOURS)}
            onChoice={(colour) => change({ colour })}
          />
          <Pick
            label="Size"
            value={terminal.size ?? ''}
            options={[OPTIONAL, ...options(SIZES)]}
            onChoice={(size) => change({ size: (size || undefined) as Terminal['size'] })}
          />
          <NumberField label="Lead’s length" unit="mm" value={terminal.length} onNumber={(length) => change({ length })} />
          <NumberField label="Strip" unit="mm" value={terminal.strip} onNumber={(strip) => change({ strip })} />
          <NumberField label="Conductors it holds" whole min={1} value={terminal.holds} onNumber={(holds) => change({ holds })} />
          <NumberField label="Channel" whole min={1} value={terminal.channel} onNumber={(channel) => change({ channel })} />
          <Toggle label="May stay unused" on={terminal.optional === true} onToggle={(optional) => change({ optional })} />
        </>
      )}
    </RowList>
  );
}

function Channels({ device, set }: Section) {
  const { job } = useJob();
  const fresh = (): Channel => ({ id: Math.max(0, ...device.channels.map((channel) => channel.id)) + 1, kind: 'relay', ratings: [] });
  const bypasses = job.catalogue.parts.map((part) => ({ value: part.id, label: part.name }));
  return (
    <RowList
      title="Channels and their ratings"
      rows={device.channels}
      add={{ label: 'Add a channel', make: fresh }}
      onRows={(channels) => set({ channels })}
      nameOf={(channel) => `channel ${channel.id}`}
    >
      {(channel, change) => (
        <>
          <NumberField label="Number" whole min={1} value={channel.id} onNumber={(id) => change({ id })} />
          <TextField label="Name" value={channel.name ?? ''} onText={(name) => change({ name })} />
          <Pick
            label="Kind"
            value={channel.kind}
            options={options(['relay', 'dimmer', 'fan-speed'])}
            onChoice={(kind) => change({ kind })}
          />
          <NumberField label="Speeds" whole value={channel.speeds} onNumber={(speeds) => change({ speeds })} />
          <NumberField label="Least load" unit="W" value={channel.minWatts} onNumber={(minWatts) => change({ minWatts })} />
          <Pick
            label="Or with the part"
            value={channel.bypassPartId ?? ''}
            options={[{ value: '', label: 'none' }, ...bypasses]}
            onChoice={(bypassPartId) => change({ bypassPartId: bypassPartId || undefined })}
          />
          <Toggle label="Can be held on" on={channel.alwaysOnMode === true} onToggle={(alwaysOnMode) => change({ alwaysOnMode })} />
          <div className="col-span-2 sm:col-span-4">
            <Ratings ratings={channel.ratings} onRatings={(ratings) => change({ ratings })} />
          </div>
        </>
      )}
    </RowList>
  );
}

function Ratings({ ratings, onRatings }: { ratings: readonly Rating[]; onRatings: (ratings: Rating[]) => void }) {
  return (
    <RowList
      title="Ratings"
      rows={ratings}
      add={{ label: 'Add a rating', make: (): Rating => ({ kinds: ['led'], limit: [0], unit: 'W' }) }}
      onRows={onRatings}
      nameOf={(rating) => `rating for ${rating.kinds.join(', ')}`}
    >
      {(rating, change) => (
        <>
          <PickSeveral
            label="Loads"
            placeholder="none"
            values={rating.kinds}
            options={options(KINDS, LOAD_WORDS)}
            onChoice={(kinds) => change({ kinds: kinds as LoadKind[] })}
          />
          {[0, 1, 2].map((sides) => (
            <NumberField
              key={sides}
              label={sides === 0 ? 'Limit' : `With ${sides} ${sides === 1 ? 'side' : 'sides'} removed`}
              value={rating.limit[sides]}
              onNumber={(limit) => change({ limit: [...rating.limit.slice(0, sides), limit, ...rating.limit.slice(sides + 1)] })}
            />
          ))}
          <Segments label="Unit" value={rating.unit} options={options(['W', 'VA', 'A'])} onChoice={(unit) => change({ unit })} />
        </>
      )}
    </RowList>
  );
}

const GROUP_STRATEGIES: Strategy[] = ['both-ends', 'keep-mechanical', 'companion', 'tie-through', 'bulb-controller', 'module', 'linked'];

function SeveralPlaces({ device, set }: Section) {
  const { job } = useJob();
  return (
    <RowList
      title="From several places"
      rows={device.multiLocation ?? []}
      add={{ label: 'Add a way', make: (): Many => ({ strategy: 'both-ends', mainAt: 'either' }) }}
      onRows={(multiLocation) => set({ multiLocation })}
      nameOf={(entry) => STRATEGY_WORDS[entry.strategy]}
    >
      {(entry, change) => (
        <>
          <Pick
            label="Way"
            value={entry.strategy}
            options={options(GROUP_STRATEGIES, STRATEGY_WORDS)}
            onChoice={(strategy) => change({ strategy })}
          />
          <PickSeveral
            label="Partners"
            placeholder="none"
            values={entry.partnerIds ?? []}
            options={job.catalogue.devices.map((other) => ({ value: other.id, label: `${other.maker} ${other.model}` }))}
            onChoice={(partnerIds) => change({ partnerIds })}
          />
          <Pick
            label="The main one stands at"
            value={entry.mainAt ?? 'either'}
            options={options(['line', 'load', 'either'])}
            onChoice={(mainAt) => change({ mainAt })}
          />
          <Pick
            label="A middle place"
            value={entry.middle ?? ''}
            options={[
              OPTIONAL,
              ...options(['tie', 'companion', 'keep'], { tie: 'is tied through', companion: 'gets a companion', keep: 'keeps its switch' }),
            ]}
            onChoice={(middle) => change({ middle: (middle || undefined) as Many['middle'] })}
          />
          <Toggle
            label="Partner wants line"
            on={entry.partner?.line === true}
            onToggle={(line) => change({ partner: { ...entry.partner, line } })}
          />
          <Toggle
            label="Partner wants neutral"
            on={entry.partner?.neutral === true}
            onToggle={(neutral) => change({ partner: { ...entry.partner, neutral } })}
          />
          <NumberField
            label="Travelers between"
            whole
            value={entry.partner?.travelers}
            onNumber={(travelers) => change({ partner: { ...entry.partner, travelers } })}
          />
        </>
      )}
    </RowList>
  );
}

function Handling({ device, set }: Section) {
  const { job } = useJob();
  return (
    <>
      <RowList
        title="Pairing, step by step"
        rows={pairingSteps(device).map((text) => ({ text }))}
        add={{ label: 'Add a step', make: () => ({ text: '' }) }}
        onRows={(rows) => set({ pairing: { ...device.pairing, steps: rows.map((row) => row.text) } })}
        nameOf={(_, at) => `step ${at + 1}`}
      >
        {(row, change, at) => (
          <TextField label={`Step ${at + 1}`} value={row.text} onText={(text) => change({ text })} boxClass="col-span-2 sm:col-span-4" />
        )}
      </RowList>
      <RowList
        title="Settings"
        rows={deviceSettings(device)}
        add={{ label: 'Add a setting', make: () => ({ name: '', values: '' }) }}
        onRows={(rows) => set({ settings: rows.map((row) => ({ name: row.name, values: wordsOf(row.values) })) })}
        nameOf={(row) => row.name || 'a setting'}
      >
        {(row, change) => (
          <>
            <TextField label="Setting" value={row.name} onText={(name) => change({ name })} boxClass="col-span-2" />
            <TextField label="Can be, with commas" value={row.values} onText={(values) => change({ values })} boxClass="col-span-2" />
          </>
        )}
      </RowList>
      <RowList
        title="In the package"
        rows={device.includes ?? []}
        add={{ label: 'Add a part', make: () => ({ partId: job.catalogue.parts[0]?.id ?? '', count: 1 }) }}
        onRows={(includes) => set({ includes })}
        nameOf={(row) => job.catalogue.parts.find((part) => part.id === row.partId)?.name ?? 'a part'}
      >
        {(row, change) => (
          <>
            <Pick
              label="Part"
              className="col-span-2"
              value={row.partId}
              options={job.catalogue.parts.map((part) => ({ value: part.id, label: part.name }))}
              onChoice={(partId) => change({ partId })}
            />
            <NumberField label="How many" whole value={row.count ?? 1} onNumber={(count) => change({ count })} />
          </>
        )}
      </RowList>
      <TextField label="Notes" value={device.notes ?? ''} onText={(notes) => set({ notes: notes || undefined })} />
    </>
  );
}
