import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { BrowserContext, Page } from '@playwright/test';
import { ownCopy } from './driver/own-copy.js';
import { expect, expectAccessible, test } from './driver/test.js';

const nameOn = (page: Page) => page.getByLabel('Box', { exact: true });

/** The application is on the device: it opens without the server from now on. */
async function onDevice(page: Page): Promise<void> {
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
}

/** Somebody else changes a field of the box. */
async function theyRename(page: Page, jobId: string, boxId: string, name: string): Promise<void> {
  const response = await page.request.get(`/api/jobs/${jobId}`);
  const job = await response.json();
  const was = job.boxes.find((box: { id: string }) => box.id === boxId).name;
  const edit = {
    id: `theirs-${name.replaceAll(/\W/g, '-')}`,
    deviceId: 'their-phone',
    n: 1,
    at: '2026-05-04T09:12:00Z',
    label: `Call it ${name}`,
    parts: [
      {
        kind: 'box',
        id: boxId,
        base: Number(response.headers()['x-job-sequence']),
        set: { name: { was, now: name } },
      },
    ],
  };
  const answer = await page.request.post(`/api/jobs/${jobId}/edits`, { data: { edits: [edit] } });
  expect((await answer.json()).results[0].outcome).toBe('applied');
}

test('a question survives the page; mine can be written anew, theirs can be undone', async ({
  page,
  context,
}) => {
  const path = await ownCopy(page, 'quillon-point', 'asked');
  const jobId = path.split('/').at(-1) as string;
  await page.goto(`${path}/box/radio-door`);
  await onDevice(page);

  const clash = async (mine: string, theirs: string) => {
    await context.setOffline(true);
    await nameOn(page).fill(mine);
    await expect(page.getByText('1 not sent yet')).toBeVisible();
    await theyRename(page, jobId, 'radio-door', theirs);
    await context.setOffline(false);
    await expect(page.getByRole('button', { name: '1 conflict' })).toBeVisible();
  };

  await test.step('it is asked, is not all sent, and is there after the page was opened anew', async () => {
    await clash('By the stairs', 'By the mast');
    await expect(page.getByText('Waits for your answer')).toBeVisible();
    await page.reload();
    await expect(nameOn(page)).toHaveValue('By the mast');
    await page.getByRole('button', { name: '1 conflict' }).click();
    const fact = page.getByRole('region', { name: /name$/ });
    await expect(fact).toContainText('Radio room, door');
    await expect(fact).toContainText('By the mast');
    await expect(fact.getByLabel('Mine')).toHaveValue('By the stairs');
    await expectAccessible(page);
    await fact.getByLabel('Mine').fill(' ');
    await page.getByRole('button', { name: 'Use mine' }).click();
    await expect(fact.getByRole('alert')).toHaveText('It cannot be left empty.');
    await fact.getByLabel('Mine').fill('By the stairs and the mast');
    await page.getByRole('button', { name: 'Use mine' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
    await expect(nameOn(page)).toHaveValue('By the stairs and the mast');
    await expect(page.getByText('All sent')).toBeVisible();
  });

  await test.step('theirs drops mine and says what was dropped; undo has it after all', async () => {
    await clash('Oak door', 'Pine door');
    await page.getByRole('button', { name: '1 conflict' }).click();
    await page.getByRole('button', { name: 'Keep theirs' }).click();
    await expect(page.getByText(/^Dropped: .*Oak door/)).toBeVisible();
    await expect(nameOn(page)).toHaveValue('Pine door');
    await page.getByRole('button', { name: /^Undo: Dropped/ }).click();
    await expect(nameOn(page)).toHaveValue('Oak door');
    await expect(page.getByText('All sent')).toBeVisible();
  });

  await test.step('the history tells all of it, and an earlier state of the box is put back', async () => {
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'History of this box' }).click();
    const entries = page.getByRole('main').getByRole('listitem').filter({ hasText: 'device' });
    await expect(entries.filter({ hasText: 'Call it Pine door' })).toContainText('device hone');
    await expectAccessible(page);
    await entries
      .filter({ hasText: 'Call it Pine door' })
      .getByRole('button', { name: 'Put back as it was before' })
      .click();
    await page
      .getByRole('link', { name: 'Oak door' })
      .or(page.getByRole('link', { name: 'By the stairs and the mast' }))
      .first()
      .click();
    await expect(nameOn(page)).toHaveValue('By the stairs and the mast');
  });
});

test('what was typed is there, though the tab was closed in the same moment and there is no network', async ({
  page,
  context,
}) => {
  const path = await ownCopy(page, 'quillon-point', 'closed');
  await page.goto(`${path}/box/radio-door`);
  await onDevice(page);
  await context.setOffline(true);
  let tab = page;
  for (const name of ['By the mast', 'By the stairs', 'By the oak door', 'By the window', 'By the stove']) {
    await nameOn(tab).fill(name);
    await tab.close();
    tab = await context.newPage();
    await tab.goto(`${path}/box/radio-door`);
    await expect(nameOn(tab)).toHaveValue(name);
  }
  await context.setOffline(false);
  await expect(tab.getByText('All sent')).toBeVisible();
});

test('a browser that keeps nothing works, and says at once what is in its page only', async ({
  page,
  context,
}) => {
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException('refused', 'SecurityError');
    };
  });
  const path = await ownCopy(page, 'quillon-point', 'unkept');
  await page.goto(`${path}/box/radio-door`);
  await nameOn(page).fill('Kept by the server');
  await expect(page.getByText('All sent')).toBeVisible();
  await context.setOffline(true);
  await nameOn(page).fill('Kept by nobody yet');
  await expect(page.getByRole('alert')).toContainText('1 edit exists in this page only');
  await expectAccessible(page);
  await context.setOffline(false);
  await expect(page.getByText('All sent')).toBeVisible();
  await expect(page.getByRole('alert')).toBeHidden();
});

test('two tabs share what waits, and neither overwrites the other', async ({ page, context }) => {
  const path = await ownCopy(page, 'quillon-point', 'tabs');
  const other = await context.newPage();
  await page.goto(`${path}/box/radio-door`);
  await other.goto(`${path}/box/kitchen-door`);
  await onDevice(page);
  await onDevice(other);
  await context.setOffline(true);
  await nameOn(page).fill('Radio room, left tab');
  await nameOn(other).fill('Kitchen, right tab');
  for (const tab of [page, other]) await expect(tab.getByText('2 not sent yet')).toBeVisible();
  await context.setOffline(false);
  for (const tab of [page, other]) await expect(tab.getByText('All sent')).toBeVisible();
  const job = await (await page.request.get(`/api${path}`)).json();
  const names = job.boxes.map((box: { name: string }) => box.name);
  expect(names).toEqual(expect.arrayContaining(['Radio room, left tab', 'Kitchen, right tab']));
});

test('a job is made without a network, worked on, and reaches the server by itself', async ({
  page,
  context,
  house,
}) => {
  await page.goto('/');
  await onDevice(page);
  await expect(page.getByRole('heading', { name: 'Quillon Point light' }).first()).toBeVisible();
  // What a new job begins with is brought in passing.
  await expect.poll(() => page.evaluate(catalogueIsHere)).toBe(true);
  await context.setOffline(true);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name of the job').fill('Made in the cellar');
  await page.getByRole('button', { name: 'Make the job' }).click();
  await expect(page.getByRole('heading', { name: 'Made in the cellar', level: 1 })).toBeVisible();
  await house.addRoom('Cellar');
  await page.reload();
  await expect(house.row('Rooms', 'Cellar')).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('region', { name: 'On this device' })).toContainText('Made in the cellar');
  await page.getByRole('link', { name: 'Made in the cellar' }).click();
  await context.setOffline(false);
  await expect(page.getByText('All sent')).toBeVisible();
  const jobs = await (await page.request.get('/api/jobs?search=cellar')).json();
  expect(jobs.map((job: { name: string; rooms: number }) => [job.name, job.rooms])).toEqual([
    ['Made in the cellar', 1],
  ]);
});

function catalogueIsHere(): Promise<boolean> {
  return new Promise((done) => {
    const opening = indexedDB.open('inventario');
    opening.onerror = () => done(false);
    opening.onsuccess = () => {
      const database = opening.result;
      const request = database.transaction('shelf').objectStore('shelf').count();
      request.onsuccess = () => {
        database.close();
        done(request.result > 0);
      };
    };
  });
}

test('a job taken out elsewhere while edits wait is still here, and becomes a new job', async ({
  page,
  context,
}) => {
  const path = await ownCopy(page, 'quillon-point', 'taken-out');
  await page.goto(`${path}/box/radio-door`);
  await onDevice(page);
  await context.setOffline(true);
  await nameOn(page).fill('Recorded in the dark');
  await expect(page.getByText('1 not sent yet')).toBeVisible();
  await page.request.delete(`/api${path}`);
  await context.setOffline(false);
  await expect(page.getByText('This job was deleted elsewhere.')).toBeVisible();
  await page.reload();
  await expect(nameOn(page)).toHaveValue('Recorded in the dark');
  await page.getByRole('button', { name: 'Make it a new job' }).click();
  await expect(page.getByText('All sent')).toBeVisible();
  expect(page.url()).not.toContain('taken-out');
  await expect(page.getByText('Recorded in the dark').first()).toBeVisible();
});

test('a new version waits while a dialog is open, and comes when it is asked for', async ({ page }) => {
  await page.goto('/jobs/quillon-point');
  await onDevice(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name of the job').fill('Half typed');
  const newer = newVersion();
  try {
    await page.evaluate(() =>
      navigator.serviceWorker.getRegistration().then((registration) => registration?.update()),
    );
    await expect
      .poll(() =>
        page.evaluate(() => navigator.serviceWorker.getRegistration().then((one) => one?.waiting != null)),
      )
      .toBe(true);
    await expect(page.getByText('A new version of Inventario is ready.')).toBeAttached();
    await expect(page.getByLabel('Name of the job')).toHaveValue('Half typed');
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
    const loaded = page.waitForEvent('load');
    await page.getByRole('button', { name: 'Use it now' }).click();
    await loaded;
    await expect(page.getByText('A new version of Inventario is ready.')).toBeHidden();
    await expect
      .poll(() =>
        page.evaluate(() => navigator.serviceWorker.getRegistration().then((one) => one?.waiting == null)),
      )
      .toBe(true);
  } finally {
    newer.takeBack();
  }
});

/** Puts a service worker with other bytes in the place of the built one. */
function newVersion(): { takeBack: () => void } {
  const files = ['sw.js', 'sw.js.gz', 'sw.js.br'].map(
    (name) => new URL(`../web/dist/${name}`, import.meta.url),
  );
  const before = files.map((file) => readFileSync(file));
  const [plain, ...packed] = files as [URL, URL, URL];
  writeFileSync(plain, `${before[0]?.toString()}\n// another day\n`);
  for (const file of packed) rmSync(file);
  const takeBack = () => {
    for (const [index, file] of files.entries()) writeFileSync(file, before[index] as Buffer);
  };
  return { takeBack };
}

test('a view that throws leaves the frame standing and says what is kept', async ({ browser, system }) => {
  const context: BrowserContext = await browser.newContext({ baseURL: system.url, serviceWorkers: 'block' });
  const page = await context.newPage();
  let broken = true;
  await page.route(/\/assets\/panel-[^/]*\.js$/, (route) =>
    broken
      ? route.fulfill({
          contentType: 'text/javascript',
          body: 'export function PanelView() { throw new Error("made to fail"); }',
        })
      : route.continue(),
  );
  await page.goto('/jobs/quillon-point');
  await page.getByRole('navigation', { name: 'Phases' }).getByRole('link', { name: 'Panel' }).click();
  await expect(page.getByRole('heading', { name: 'This view stopped' })).toBeVisible();
  await expect(page.getByText('What you recorded is kept on this device')).toBeVisible();
  await expectAccessible(page);
  broken = false;
  await page.getByRole('navigation', { name: 'Phases' }).getByRole('link', { name: 'House' }).click();
  await expect(page.getByRole('region', { name: 'Rooms' })).toBeVisible();
  await page.getByRole('navigation', { name: 'Phases' }).getByRole('link', { name: 'Panel' }).click();
  await page.getByRole('button', { name: 'Reload the page' }).click();
  await expect(page.getByRole('heading', { name: 'This view stopped' })).toBeHidden();
  await context.close();
});

test('a file that is not there is not there', async ({ page }) => {
  for (const path of ['/assets/gone-1234.js', '/gone.png', '/api', '/api/gone'])
    expect((await page.request.get(path)).status()).toBe(404);
  expect((await page.request.get('/jobs/any')).status()).toBe(200);
});
