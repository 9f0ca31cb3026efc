import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import { colourRule, feelRule, platformRule } from '../match/rules/client.js';
import { radioRule } from '../match/rules/network.js';

/** Devices a brief leaves to choose from, before any box is looked at. */
export interface PossibleDevices {
  /** Made for the practice. */
  made: number;
  /** No wish that has to be met stops them. */
  possible: number;
  /** And they are to the client's liking in everything. */
  liked: number;
}

/**
 * Answers a question "what does this wish rule out" when asked with the wish in the brief and without.
 * Partners without a radio are left out.
 */
export function possibleDevices(
  job: Pick<Job, 'practice' | 'catalogue'>,
  brief: Job['brief'],
): PossibleDevices {
  const made = job.catalogue.devices.filter(
    (device) => device.practices.includes(job.practice) && device.radio !== 'none',
  );
  const facts = { need: {}, known: { job: brief ? { brief } : {} } };
  const possible = made.filter((device) => !stopped(device, facts));
  const liked = possible.filter(
    (device) =>
      [...platformRule(facts, device), ...feelRule(facts, device), ...colourRule(facts, device)].length === 0,
  );
  return { made: made.length, possible: possible.length, liked: liked.length };
}

function stopped(device: Device, facts: Parameters<typeof platformRule>[0]): boolean {
  return [...radioRule(facts, device), ...platformRule(facts, device)].some(
    (reason) => reason.outcome === 'block',
  );
}
