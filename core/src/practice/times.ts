/**
 * Minutes that steps of the work take, for planning, until a job's own record tells otherwise. An estimate of
 * this program.
 */
export const TIMES = {
  tripToPanel: 3,
  isolateAndProve: 2,
  open: { box: 6, gang: 2 },
  partAndCap: { gang: 2 },
  energisedCheck: 2,
  wire: { device: 10, joint: 2, jointsWithin: 3 },
  functionTest: 2,
  close: { gang: 6 },
  pair: { wifi: 4, hub: 3, platform: 1 },
} as const;
