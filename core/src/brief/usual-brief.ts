import type { Job } from '../job/schema/job.js';

type Brief = NonNullable<Job['brief']>;

/**
 * The brief with what is usual in place of what nobody asked: every radio taken, 2.4 GHz offered, any light,
 * the last level, white, no spares, a trial unit first. What was answered stays. Assistants, hubs, the
 * router's numbers and the money are the client's alone.
 */
export function usualBrief(brief: Brief): Brief {
  return {
    ...brief,
    radios: brief.radios?.length ? brief.radios : ['wifi', 'mesh', 'subghz', 'maker', 'ble'],
    wifi: { band24: true, ...brief.wifi },
    feel: {
      indicator: 'any',
      onLevel: 'last',
      ...brief.feel,
      actuators: brief.feel?.actuators?.length
        ? brief.feel.actuators
        : ['paddle', 'toggle', 'buttons', 'touch', 'dial'],
    },
    colour: brief.colour ?? 'white',
    spares: brief.spares ?? 0,
    trialFirst: brief.trialFirst ?? true,
  };
}
