import { type Box, type Job, newBox, newJob } from '@inventario/core';
import type { Page } from '@playwright/test';

const NOTHING = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };

/** A house with its panel listed and one box surveyed; the other boxes stand there with nothing recorded. */
export async function newHouse(
  page: Page,
  id: string,
  boxes: (Partial<Box> & { name: string })[],
  groups: Job['groups'] = [],
): Promise<string> {
  const plain = ({ name, ...more }: (typeof boxes)[number], at: number): Box => ({
    ...newBox({ id: `${id}-${name}`, roomId: `${id}-hall`, name: `Hall, ${name}`, order: at + 1 }, 'us', [
      `${id}-c12`,
    ]),
    ...more,
  });
  const { enclosure } = plain({ name: '' }, 0);
  const read = { ...enclosure, capacity: { from: 'marked' as const, in3: 18 }, depth: 70 };
  const job: Job = {
    ...newJob(id, 'Tiller cottage', 'us', undefined, NOTHING),
    circuits: [
      { id: `${id}-c12`, panel: 'Main', breaker: '12', label: 'Hall lights', amps: 15, volts: 120 },
      { id: `${id}-c3`, panel: 'Main', breaker: '3', label: 'Scullery', amps: 20, volts: 120 },
    ],
    rooms: [{ id: `${id}-hall`, name: 'Hall', floor: 0, order: 1 }],
    loads: [
      {
        id: `${id}-l1`,
        name: 'Hall ceiling',
        roomId: `${id}-hall`,
        kind: 'led',
        count: 4,
        wattsEach: 9,
        dimmable: true,
      },
    ],
    boxes: [{ name: 'stairs', enclosure: read }, ...boxes].map(plain),
    groups,
  };
  const answer = await page.request.post('/api/jobs?existing=replace', { data: job });
  if (!answer.ok()) throw new Error(await answer.text());
  return `/jobs/${id}`;
}
