import { lastByClock } from '../job/events.js';
import type { JobLookup } from '../job/lookup.js';
import type { Device, Hub } from '../job/schema/catalogue.js';
import type { Account, HubOnSite } from '../job/schema/commissioning.js';
import { radioChannels } from '../job/targets.js';

/** A platform of the brief, and whether the hub or account is linked to it. */
interface LinkStands {
  platform: string;
  must: boolean;
  outcome: 'linked' | 'failed' | null;
  reason: string | null;
}

type HubStep = 'placed' | 'online' | 'updated' | 'linked' | 'done';

/** One hub that chosen devices work through, and how far it is. Hubs come before their devices. */
export interface HubTask {
  hub: Hub;
  record: HubOnSite | undefined;
  /** How many chosen devices work through it. */
  devices: number;
  links: LinkStands[];
  /** The first thing that is not done. */
  step: HubStep;
}

/** One maker whose devices need an account; a platform is linked to it once, for all of them. */
export interface AccountTask {
  maker: string;
  record: Account | undefined;
  devices: number;
  links: LinkStands[];
  step: 'made' | 'linked' | 'done';
}

export const hubRecord = ({ job }: JobLookup, hubId: string): HubOnSite | undefined =>
  job.hubs.findLast((record) => record.hubId === hubId);

/** Devices by their places: one with two channels is one. */
function chosenDevices(known: JobLookup) {
  const first = radioChannels(known).filter(({ device, channel }) => device.channels[0] === channel);
  return first.map(({ device }) => device);
}

export function hubTasks(known: JobLookup): HubTask[] {
  const chosen = chosenDevices(known);
  return known.job.catalogue.hubs.flatMap((hub): HubTask[] => {
    const devices = chosen.filter(({ hubId }) => hubId === hub.id).length;
    if (devices === 0) return [];
    const record = hubRecord(known, hub.id);
    const links = linksOf(known, hub.platforms, record?.links);
    return [{ hub, record, devices, links, step: hubStep(record, links) }];
  });
}

function hubStep(record: HubOnSite | undefined, links: readonly LinkStands[]): HubStep {
  if (!record?.placed) return 'placed';
  if (!record.online) return 'online';
  if (!record.updated) return 'updated';
  return links.some(isDue) ? 'linked' : 'done';
}

/** Whether a device is worked over its maker's cloud, and not through a hub. */
export const needsAccount = ({ control, hubId }: Device) =>
  control !== undefined && control !== 'local' && hubId === undefined;

export function accountTasks(known: JobLookup): AccountTask[] {
  const byMaker = new Map<string, { devices: number; platforms: Set<string> }>();
  for (const device of chosenDevices(known)) {
    if (!needsAccount(device)) continue;
    const of = byMaker.get(device.maker) ?? { devices: 0, platforms: new Set() };
    byMaker.set(device.maker, of);
    of.devices += 1;
    for (const platform of device.platforms) of.platforms.add(platform);
  }
  return [...byMaker].map(([maker, { devices, platforms }]) => {
    const record = known.job.accounts.findLast((account) => account.maker === maker);
    const links = linksOf(known, [...platforms], record?.links);
    const step = !record ? 'made' : links.some(isDue) ? 'linked' : 'done';
    return { maker, record, devices, links, step };
  });
}

const isDue = ({ must, outcome }: LinkStands) => must && outcome !== 'linked';

function linksOf(known: JobLookup, offered: readonly string[], links: HubOnSite['links']): LinkStands[] {
  return (known.job.brief?.platforms ?? [])
    .filter(({ name }) => offered.includes(name))
    .map(({ name, want }) => {
      const last = lastByClock((links ?? []).filter(({ platform }) => platform === name));
      return {
        platform: name,
        must: want === 'must',
        outcome: last?.outcome ?? null,
        reason: last?.reason ?? null,
      };
    });
}
