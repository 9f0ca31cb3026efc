import { settledBox } from '../identify/settled.js';
import type { JobLookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import { signalAt } from '../radio/signal.js';
import { chosenPlaces, type PlannedDevice, plannedDevices } from '../wire/comes-out.js';
import type { ConnectorChoice } from '../wire/connectors.js';
import { planJoints } from '../wire/plan.js';

/** Something to be packed, checked or told before anybody leaves; the sentences stand with the others. */
export interface ToHave {
  /** The same as long as it is the same thing, so that what is ticked stays ticked. */
  key: string;
  code: ToHaveCode;
  /** What it is for: terminals, joints, devices, boxes. */
  count: number;
  /** A name, or a measure in mm. */
  what: string;
  connector?: ConnectorChoice;
}

export type ToHaveCode =
  | 'tester'
  | 'meter'
  | 'headlamp'
  | 'hand-tools'
  | 'labels'
  | 'painted'
  | 'screw-drive'
  | 'clamp-drive'
  | 'push-in'
  | 'strip'
  | 'connector'
  | 'ladder'
  | 'spare-plate'
  | 'phone-system'
  | 'maker-app'
  | 'maker-account'
  | 'mail-code'
  | 'wifi-password'
  | 'hub-first'
  | 'tell-dark'
  | 'clear-way'
  | 'old-device'
  | 'router-dark';

export interface BeforeLeaving {
  van: readonly ToHave[];
  phone: readonly ToHave[];
  client: readonly ToHave[];
  /** Boxes of a Wi-Fi device at which nobody read the signal: it is read before the power goes off. */
  signal: readonly string[];
}

/** Houses built before this year have paint over their plates as a rule. */
const OFTEN_PAINTED = 1990;

/** What the boxes still to be worked on ask for before anybody leaves. */
export function beforeLeaving(boxIds: readonly string[], known: JobLookup): BeforeLeaving {
  const boxes = boxIds.flatMap((id) => known.boxes.get(id) ?? []);
  const devices = boxes.flatMap((box) => plannedDevices(chosenPlaces(box, known)));
  return {
    van: [...tools(boxes, devices, known), ...connectors(boxes, known)],
    phone: phoneCheck(devices, known),
    client: clientPrepares(boxes, known),
    signal: boxes
      .filter((box) => signalAt(box) === null)
      .filter((box) => plannedDevices(chosenPlaces(box, known)).some(({ device }) => device.radio === 'wifi'))
      .map(({ id }) => id),
  };
}

const item = (code: ToHaveCode, count: number, what = ''): ToHave[] =>
  count > 0 ? [{ key: what === '' ? code : `${code}:${what}`, code, count, what }] : [];

function tools(boxes: readonly Box[], devices: readonly PlannedDevice[], known: JobLookup): ToHave[] {
  const terminals = devices.flatMap(({ device }) => device.terminals);
  const ofForm = (form: string) => terminals.filter((terminal) => terminal.form === form).length;
  const strips = new Map<number, number>();
  for (const { strip } of terminals) if (strip) strips.set(strip, (strips.get(strip) ?? 0) + 1);
  const atFitting = devices.filter(({ device }) => device.mount === 'fitting').length;
  const built = known.job.site?.builtYear;
  return [
    ...item('tester', boxes.length),
    ...item('meter', boxes.length),
    ...item('headlamp', 1),
    ...item('hand-tools', 1),
    ...item('labels', boxes.length),
    ...item('painted', built !== undefined && built < OFTEN_PAINTED ? boxes.length : 0),
    ...item('screw-drive', ofForm('screw')),
    ...item('clamp-drive', ofForm('clamp')),
    ...item('push-in', ofForm('push-in')),
    ...[...strips].sort(([a], [b]) => a - b).flatMap(([mm, count]) => item('strip', count, String(mm))),
    ...item('ladder', atFitting),
    ...item('spare-plate', devices.filter(({ device }) => device.ownPlate !== true).length),
  ];
}

function connectors(boxes: readonly Box[], known: JobLookup): ToHave[] {
  const found = new Map<string, { connector: ConnectorChoice; count: number }>();
  for (const box of boxes) {
    const settled = settledBox(box, known).box;
    for (const { connector, kept } of planJoints(settled, chosenPlaces(settled, known), known).joints)
      if (connector && !kept)
        found.set(connector.id, { connector, count: (found.get(connector.id)?.count ?? 0) + 1 });
  }
  return [...found].flatMap(([id, { connector, count }]) =>
    item('connector', count, id).map((entry) => ({ ...entry, connector })),
  );
}

function phoneCheck(devices: readonly PlannedDevice[], { job }: JobLookup): ToHave[] {
  const radio = devices.filter(({ device }) => device.radio !== 'none');
  const makers = [...new Set(radio.map(({ device }) => device.maker))];
  const newMakers = makers.filter((maker) => !job.accounts.some((account) => account.maker === maker));
  const of = (maker: string) => radio.filter(({ device }) => device.maker === maker).length;
  const hubs = [...new Set(radio.flatMap(({ device }) => device.hubId ?? []))];
  const hubsOnSite = new Set(job.hubs.map((hub) => String(hub.hubId)));
  return [
    ...item('phone-system', radio.length > 0 ? 1 : 0),
    ...makers.flatMap((maker) => item('maker-app', of(maker), maker)),
    ...newMakers.flatMap((maker) => item('maker-account', 1, maker)),
    ...item('mail-code', newMakers.length),
    ...item('wifi-password', radio.filter(({ device }) => device.radio === 'wifi').length + hubs.length),
    ...hubs.filter((id) => !hubsOnSite.has(id)).flatMap((id) => item('hub-first', 1, id)),
  ];
}

function clientPrepares(boxes: readonly Box[], known: JobLookup): ToHave[] {
  const old = boxes.flatMap(({ positions }) =>
    positions.filter(({ replaces }) => replaces && replaces.removed !== true),
  );
  return [
    ...item('tell-dark', boxes.length),
    ...item('clear-way', boxes.length),
    ...item('router-dark', known.job.brief?.wifi?.routerCircuit ? 1 : 0),
    ...item('old-device', old.length),
  ];
}
