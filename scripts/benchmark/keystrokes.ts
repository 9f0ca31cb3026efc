import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Box, Job } from '@inventario/core';
import { quillonPoint } from '@inventario/demo';
import { chromium, type Page } from '@playwright/test';
import { freePort } from '../database.js';
import { startSystem } from '../system.js';
import { type Row, STEPS } from './measure.js';

const KEYSTROKES = 40;
/** A box with readings and one without: weighing readings must not hold a verdict up. */
const BOXES = ['bunk-door', 'stair-head'];

/** The demo's house made up to 60 boxes by copies of its own. */
function sixtyBoxes(): Job {
  const job = structuredClone(quillonPoint());
  const originals = [...job.boxes];
  for (let copy = 0; job.boxes.length < 60; copy++) {
    const original = originals[copy % originals.length] as Box;
    let text = JSON.stringify({ ...original, readings: [] });
    // What a box is made of is named once in a job.
    for (const { id } of [...original.cables, ...original.conductors, ...original.joints, original])
      text = text.replaceAll(JSON.stringify(id), JSON.stringify(`${id}-copy-${copy}`));
    job.boxes.push(JSON.parse(text) as Box);
  }
  return { ...job, id: 'sixty-boxes', name: 'Sixty boxes' };
}

/**
 * From a keystroke in the volume field to the verdict with that volume on the screen, in ms, sorted; and the
 * page's own float steps.
 */
async function typed(page: Page, address: string): Promise<{ times: number[]; referenceMs: number }> {
  await page.goto(address, { waitUntil: 'networkidle' });
  // The line is folded where nothing of it is left to record.
  const folded = page.getByRole('button', { name: /^Enclosure/, expanded: false });
  if (await folded.isVisible()) await folded.click();
  await page.getByLabel('Marked in the box, in³').focus();
  return page.evaluate(async (count) => {
    // No function is given a name in here: the runner would wrap it in a helper that the page does not have.
    const input = document.activeElement as HTMLInputElement;
    const reckoning = document.querySelector('[aria-label="Reckoning"]') as HTMLElement;
    const type = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set;
    const times: number[] = [];
    for (let stroke = -3; stroke < count; stroke++) {
      const volume = (40 + stroke * 0.1).toFixed(1);
      const begun = performance.now();
      const shown = new Promise<number>((done) => {
        const watch = new MutationObserver(() => {
          if (!reckoning.innerText.includes(volume)) return;
          watch.disconnect();
          done(performance.now() - begun);
        });
        watch.observe(reckoning, { subtree: true, childList: true, characterData: true });
      });
      type?.call(input, volume);
      input.dispatchEvent(new Event('input', { bubbles: true }));
      const answer = await Promise.race([
        shown,
        new Promise<number>((done) => setTimeout(done, 5000, Number.NaN)),
      ]);
      if (stroke >= 0) times.push(answer);
      await new Promise((done) => setTimeout(done, 200));
    }
    const begun = performance.now();
    let value = 0.5;
    for (let step = 0; step < 10_000_000; step++) value = 3.7 * value * (1 - value);
    return {
      times: times.sort((a, b) => a - b),
      referenceMs: (performance.now() - begun) / (value > 1 ? 1 : 10),
    };
  }, KEYSTROKES);
}

/** In the built application, on a house of 60 boxes: the slowest of the keystrokes, not their middle. */
export async function keystrokes(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'inventario-benchmark-'));
  const system = await startSystem({
    dataFolder: folder,
    host: '127.0.0.1',
    port: await freePort(),
    databasePort: await freePort(),
    sitePort: await freePort(),
    forTests: true,
  });
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const job = sixtyBoxes();
    const answer = await fetch(`${system.url}/api/jobs?existing=replace`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(job),
    });
    if (!answer.ok) throw new Error(`the house of 60 boxes was not taken: ${await answer.text()}`);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const rows: Row[] = [];
    for (const boxId of BOXES) {
      const { times, referenceMs } = await typed(page, `${system.url}/jobs/${job.id}/box/${boxId}`);
      const readings = job.boxes.find((box) => box.id === boxId)?.readings.length ?? 0;
      rows.push({
        what: `slowest of ${KEYSTROKES} keystrokes, ${readings} readings`,
        median: times.at(-1) as number,
        bound: 100,
        reference: STEPS,
        referenceMs,
      });
    }
    return rows;
  } finally {
    await browser.close();
    await system.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
