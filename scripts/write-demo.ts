// Writes the job files of the demo to demo/jobs, where they serve as examples for import and the command
// line.
import { mkdirSync, writeFileSync } from 'node:fs';
import { demoJobs } from '@inventario/demo';

mkdirSync('demo/jobs', { recursive: true });
for (const job of demoJobs())
  writeFileSync(`demo/jobs/${job.id}.inventario.json`, `${JSON.stringify(job, null, 1)}\n`);
