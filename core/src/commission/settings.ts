import type { JobLookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Pairing } from '../job/schema/commissioning.js';
import type { Load } from '../job/schema/job.js';
import { LAMP_KINDS } from '../loads/lamp-kinds.js';
import { loadsOfChannel } from './channel-loads.js';
import type { ChannelTask } from './pairing/tasks.js';

type SettingCode =
  | 'bulb-type'
  | 'calibration'
  | 'low-end'
  | 'top-end'
  | 'fade'
  | 'power-on'
  | 'fan-run-on'
  | 'vacancy'
  | 'indicator'
  | 'taps'
  | 'own';

/** A setting of one channel, with why it comes where it comes. */
export interface SettingTask {
  code: SettingCode;
  name: string;
  /** What it can be; null where a number or words are typed. */
  values: string[] | null;
  /** What was recorded last, and who asked for it. */
  value: string | number | boolean | null;
  for: string | null;
  /** Found by the search for the lowest steady level, not typed. */
  bySearch: boolean;
}

interface Wanted {
  code: SettingCode;
  name: string;
  values?: string[];
  when: (load: Load['kind'] | null, at: ChannelTask) => boolean;
}

const dims = (load: Load['kind'] | null, at: ChannelTask) =>
  at.channel.kind === 'dimmer' && (load === null || (load !== 'smart-bulb' && LAMP_KINDS.has(load)));

/** In the order in which they matter: what can spoil the light or the load comes first. */
const WANTED: readonly Wanted[] = [
  {
    code: 'bulb-type',
    name: 'Bulb type',
    values: ['LED', 'incandescent', 'fluorescent', 'low-voltage transformer'],
    when: dims,
  },
  {
    code: 'calibration',
    name: 'Calibration run',
    values: ['done', 'not offered'],
    when: (load, at) => dims(load, at) && load !== 'resistive',
  },
  { code: 'low-end', name: 'Low end', when: dims },
  { code: 'top-end', name: 'Top end', when: dims },
  {
    code: 'fan-run-on',
    name: 'Run-on',
    values: ['off', '5 minutes', '15 minutes', '30 minutes', '60 minutes'],
    when: (load) => load === 'exhaust-fan',
  },
  {
    code: 'vacancy',
    name: 'Off after no motion',
    values: ['1 minute', '5 minutes', '15 minutes', '30 minutes'],
    when: (_, { device }) => device.senses?.includes('motion') === true,
  },
  {
    code: 'power-on',
    name: 'After a power cut',
    values: ['as before', 'on', 'off'],
    when: () => true,
  },
  { code: 'fade', name: 'Fade', values: ['none', '0.5 s', '1 s', '2 s'], when: dims },
  {
    code: 'indicator',
    name: 'Indicator',
    values: ['off', 'dim when off', 'on when off', 'on when on'],
    when: (_, { device }) => device.indicator !== undefined && device.indicator !== 'none',
  },
  {
    code: 'taps',
    name: 'Double tap',
    values: ['nothing', 'full level', 'scene', 'room off'],
    when: (_, { device }) => device.scenes === true,
  },
];

/** The settings that matter for this channel's load, what can spoil it first, and the device's own. */
export function settingTasks(at: ChannelTask, known: JobLookup): SettingTask[] {
  const kind = loadsOfChannel(known, at)[0]?.kind ?? null;
  const own = ownSettings(at.device);
  const wanted = WANTED.filter((setting) => setting.when(kind, at)).map((setting) => {
    const named = own.find(({ name }) => name.toLowerCase() === setting.name.toLowerCase());
    return task(at, setting.code, setting.name, named?.values ?? setting.values ?? null);
  });
  const rest = own.filter(({ name }) => !wanted.some((one) => one.name.toLowerCase() === name.toLowerCase()));
  return [...wanted, ...rest.map(({ name, values }) => task(at, 'own', name, values))];
}

function task(at: ChannelTask, code: SettingCode, name: string, values: string[] | null): SettingTask {
  const last = lastSetting(at.record, name);
  return {
    code,
    name,
    values,
    value: last?.value ?? null,
    for: last?.for ?? null,
    bySearch: code === 'low-end',
  };
}

const lastSetting = (record: Pairing | undefined, name: string) =>
  record?.settings?.findLast((setting) => setting.name === name);

/** What the device's record lists as worth setting. */
function ownSettings({ settings }: Pick<Device, 'settings'>): { name: string; values: string[] | null }[] {
  return (settings ?? []).flatMap((entry) => {
    const { name, values } = (entry ?? {}) as { name?: unknown; values?: unknown };
    if (typeof name !== 'string') return [];
    const words = Array.isArray(values) ? values.filter((value) => typeof value === 'string') : [];
    return [{ name, values: words.length > 0 ? words : null }];
  });
}
