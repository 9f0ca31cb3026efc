import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import { homePlans } from './home-plans.js';

/** What one more wish, made a must, would add to the cheapest plan. */
export interface RequirementCost {
  /** `platform` with its name in `what`; the others speak of every device. */
  kind: 'platform' | 'silent' | 'colour' | 'local' | 'no-microphone';
  what: string;
  /** Minor units on top of the cheapest plan; negative where fewer places are served. */
  extra: number;
  /** Places no longer served. */
  lost: number;
}

/** @returns dearest last; wishes that are musts already are left out */
export function requirementCosts(job: Job): RequirementCost[] {
  const base = total(job);
  const wishes: { kind: RequirementCost['kind']; what: string; job: Job }[] = [];
  const musts = new Set(
    (job.brief?.platforms ?? [])
      .filter((platform) => platform.want === 'must')
      .map((platform) => platform.name),
  );
  for (const { name } of job.catalogue.platforms)
    if (!musts.has(name)) {
      const others = (job.brief?.platforms ?? []).filter((platform) => platform.name !== name);
      wishes.push({
        kind: 'platform',
        what: name,
        job: { ...job, brief: { ...job.brief, platforms: [...others, { name, want: 'must' }] } },
      });
    }
  const only = (kind: RequirementCost['kind'], what: string, keeps: (device: Device) => boolean) =>
    wishes.push({ kind, what, job: withDevices(job, keeps) });
  only('silent', '', (device) => device.audible !== true);
  only(
    'local',
    '',
    (device) => device.radio === 'none' || device.control === 'local' || device.control === 'both',
  );
  only('no-microphone', '', (device) => device.microphone !== true);
  const colour = job.brief?.colour;
  if (colour)
    only(
      'colour',
      colour,
      (device) => !device.colours?.length || device.mount === 'fitting' || device.colours.includes(colour),
    );
  return wishes
    .map(({ kind, what, job: asked }) => {
      const plan = total(asked);
      return { kind, what, extra: plan.total - base.total, lost: base.served - plan.served };
    })
    .sort((a, b) => a.lost - b.lost || a.extra - b.extra);
}

function total(job: Job): { total: number; served: number } {
  const [plan] = homePlans(job, ['lowest-cost']);
  return { total: plan?.total ?? 0, served: plan?.served ?? 0 };
}

/** The job with only some devices to choose from; those that stand already stay. */
function withDevices(job: Job, keeps: (device: Device) => boolean): Job {
  const banned = job.catalogue.devices
    .filter((device) => !keeps(device))
    .map((device) => ({ deviceId: device.id }));
  return { ...job, brief: { ...job.brief, bans: [...(job.brief?.bans ?? []), ...banned] } };
}
