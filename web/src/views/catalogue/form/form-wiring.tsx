import {
  type Device,
  deviceName,
  LOAD_WORDS,
  type LoadKind,
  plural,
  STRATEGY_WORDS,
  type Strategy,
  WIRE,
  type WireSize,
} from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { INSULATION } from '../../../drawings/insulation.js';
import { PickOne, PickSeveral, Segments } from '../../../ui/choice.js';
import { NumberField, TextField } from '../../../ui/field.js';
import { RowList } from '../../../ui/row-list.js';
import { Toggle } from '../../../ui/toggle.js';
import { OPTIONAL, options, type Section } from './form-parts.js';

type Terminal = Device['terminals'][number];
type Channel = Device['channels'][number];
type Rating = Channel['ratings'][number];
type Many = NonNullable<Device['multiLocation']>[number];

const KINDS = Object.keys(LOAD_WORDS) as LoadKind[];
const SIZES = Object.keys(WIRE) as WireSize[];
const COLOURS = Object.keys(INSULATION) as NonNullable<Terminal['colour']>[];

export function Terminals({ device, set }: Section) {
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
          <PickOne
            label="For"
            value={terminal.role}
            options={options(['line', 'load', 'neutral', 'ground', 'traveler', 'sense'])}
            onChoice={(role) => change({ role })}
          />
          <PickOne
            label="Form"
            value={terminal.form}
            options={options(['lead', 'screw', 'clamp', 'push-in'])}
            onChoice={(form) => change({ form })}
          />
          <PickOne
            label="Lead’s colour"
            value={terminal.colour ?? 'unknown'}
            options={options(COLOURS)}
            onChoice={(colour) => change({ colour })}
          />
          <PickOne
            label="Size"
            value={terminal.size ?? ''}
            options={[OPTIONAL, ...options(SIZES)]}
            onChoice={(size) => change({ size: (size || undefined) as Terminal['size'] })}
          />
          <NumberField
            label="Lead’s length"
            unit="mm"
            value={terminal.length}
            onNumber={(length) => change({ length })}
          />
          <NumberField
            label="Strip"
            unit="mm"
            value={terminal.strip}
            onNumber={(strip) => change({ strip })}
          />
          <NumberField
            label="Conductors it holds"
            whole
            min={1}
            value={terminal.holds}
            onNumber={(holds) => change({ holds })}
          />
          <NumberField
            label="Channel"
            whole
            min={1}
            value={terminal.channel}
            onNumber={(channel) => change({ channel })}
          />
          <Toggle
            label="May stay unused"
            on={terminal.optional === true}
            onToggle={(optional) => change({ optional })}
          />
        </>
      )}
    </RowList>
  );
}

export function Channels({ device, set }: Section) {
  const { job } = useJob();
  const fresh = (): Channel => ({
    id: Math.max(0, ...device.channels.map((channel) => channel.id)) + 1,
    kind: 'relay',
    ratings: [],
  });
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
          <PickOne
            label="Kind"
            value={channel.kind}
            options={options(['relay', 'dimmer', 'fan-speed'])}
            onChoice={(kind) => change({ kind })}
          />
          <NumberField
            label="Speeds"
            whole
            value={channel.speeds}
            onNumber={(speeds) => change({ speeds })}
          />
          <NumberField
            label="Least load"
            unit="W"
            value={channel.minWatts}
            onNumber={(minWatts) => change({ minWatts })}
          />
          <PickOne
            label="Or with the part"
            value={channel.bypassPartId ?? ''}
            options={[{ value: '', label: 'none' }, ...bypasses]}
            onChoice={(bypassPartId) => change({ bypassPartId: bypassPartId || undefined })}
          />
          <Toggle
            label="Can be held on"
            on={channel.alwaysOnMode === true}
            onToggle={(alwaysOnMode) => change({ alwaysOnMode })}
          />
          <div className="col-span-2 sm:col-span-4">
            <Ratings ratings={channel.ratings} onRatings={(ratings) => change({ ratings })} />
          </div>
        </>
      )}
    </RowList>
  );
}

function Ratings({
  ratings,
  onRatings,
}: {
  ratings: readonly Rating[];
  onRatings: (ratings: Rating[]) => void;
}) {
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
              label={sides === 0 ? 'Limit' : `With ${plural(sides, 'side')} removed`}
              value={rating.limit[sides]}
              onNumber={(limit) =>
                change({ limit: [...rating.limit.slice(0, sides), limit, ...rating.limit.slice(sides + 1)] })
              }
            />
          ))}
          <Segments
            label="Unit"
            value={rating.unit}
            options={options(['W', 'VA', 'A'])}
            onChoice={(unit) => change({ unit })}
          />
        </>
      )}
    </RowList>
  );
}

const GROUP_STRATEGIES: Strategy[] = [
  'both-ends',
  'keep-mechanical',
  'companion',
  'tie-through',
  'bulb-controller',
  'module',
  'linked',
];

export function SeveralPlaces({ device, set }: Section) {
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
          <PickOne
            label="Way"
            value={entry.strategy}
            options={options(GROUP_STRATEGIES, STRATEGY_WORDS)}
            onChoice={(strategy) => change({ strategy })}
          />
          <PickSeveral
            label="Partners"
            placeholder="none"
            values={entry.partnerIds ?? []}
            options={job.catalogue.devices.map((other) => ({
              value: other.id,
              label: deviceName(other),
            }))}
            onChoice={(partnerIds) => change({ partnerIds })}
          />
          <PickOne
            label="The main one stands at"
            value={entry.mainAt ?? 'either'}
            options={options(['line', 'load', 'either'])}
            onChoice={(mainAt) => change({ mainAt })}
          />
          <PickOne
            label="A middle place"
            value={entry.middle ?? ''}
            options={[
              OPTIONAL,
              ...options(['tie', 'companion', 'keep'], {
                tie: 'is tied through',
                companion: 'gets a companion',
                keep: 'keeps its switch',
              }),
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
