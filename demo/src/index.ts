export { demoCatalogue } from './catalogue/index.js';
export { quillonPoint } from './quillon-point.js';

import type { Job } from '@inventario/core';
import { heronHouse } from './heron-house.js';
import { quillonPoint } from './quillon-point.js';
import { saffronTerrace, wherryCottage } from './small-jobs.js';
import { ternHouse } from './tern-house.js';

/** Every made-up job, the main one last: what was taken in last stands first. */
export function demoJobs(): Job[] {
  return [saffronTerrace(), wherryCottage(), ternHouse(), heronHouse(), quillonPoint()];
}
