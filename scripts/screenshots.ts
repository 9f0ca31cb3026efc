// The pictures of docs/screenshots, made from the demo on a fresh system: `npm run screenshots`.
import { mkdirSync, rmSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import { freePort } from './database.js';
import { startSystem } from './system.js';
import { testFolder } from './test-folder.js';

interface Shot {
  name: string;
  path: string;
  phone?: boolean;
  dark?: boolean;
  before?: (page: Page) => Promise<void>;
}

const JOB = '/jobs/quillon-point';
const SHOTS: Shot[] = [
  { name: 'jobs', path: '/' },
  { name: 'board', path: JOB },
  { name: 'survey', path: `${JOB}/box/kitchen-range` },
  {
    name: 'survey-phone-dark',
    path: `${JOB}/box/radio-door`,
    phone: true,
    dark: true,
    before: async (page) => {
      await page.getByRole('radio', { name: 'Label', exact: true }).tap();
      await page.locator('[data-conductor]').nth(3).tap();
    },
  },
  {
    name: 'read',
    path: `${JOB}/box/bunk-door`,
    phone: true,
    before: (page) => page.getByText('Readings contradict each other').first().waitFor(),
  },
  { name: 'brief', path: `${JOB}/brief` },
  {
    name: 'plans',
    path: `${JOB}/plans`,
    before: (page) => page.getByRole('table', { name: 'Plans by strategy' }).waitFor(),
  },
  { name: 'materials', path: `${JOB}/materials` },
  {
    name: 'wire',
    path: '/jobs/tern-house/box/kitchen/wire',
    before: (page) => page.getByText('Ready: proved in every state').first().waitFor(),
  },
  {
    name: 'wire-phone',
    path: '/jobs/tern-house/box/stair-high/wire',
    phone: true,
    dark: true,
    before: async (page) => {
      await page.getByText(/^Step 1 of/).waitFor();
      for (let step = 0; step < 12; step++) await page.getByRole('button', { name: 'After' }).tap();
    },
  },
  { name: 'catalogue', path: `${JOB}/catalogue/devices/os-apart` },
  { name: 'panel', path: `${JOB}/panel` },
  { name: 'fit', path: `${JOB}/fit/kitchen-range` },
  {
    name: 'choose',
    path: `${JOB}/box/stair-head/choose/1`,
    before: (page) => page.getByRole('radio', { name: /^All/ }).click(),
  },
  {
    name: 'pair-dark',
    path: '/jobs/heron-house/pair?at=kitchen/3',
    dark: true,
    before: (page) => page.getByText('Type the password again').first().waitFor(),
  },
  { name: 'names', path: '/jobs/heron-house/names' },
  { name: 'tune', path: '/jobs/heron-house/tune?at=kitchen/1/1' },
  {
    name: 'rules',
    path: '/jobs/heron-house/rules',
    before: (page) => page.getByLabel('Date').fill('2026-05-15'),
  },
  {
    // It writes into the demo, so it comes last.
    name: 'stop-phone',
    path: `${JOB}/box/radio-door`,
    phone: true,
    before: async (page) => {
      await page.getByRole('button', { name: /breaker 5,/ }).tap();
      await page.getByRole('button', { name: 'Switched off' }).tap();
      await page.getByRole('radio', { name: 'Test', exact: true }).tap();
      const first = page.locator('[data-conductor]').first();
      if ((await first.getAttribute('aria-pressed')) === 'false') await first.tap();
      await page.getByRole('button', { name: 'alert', exact: true }).tap();
      await page.getByRole('button', { name: 'Put it down' }).tap();
      await page.getByRole('button', { name: 'Show what stops the work' }).tap();
      await page.getByRole('button', { name: '3 is off now' }).last().waitFor();
      await page.getByText('All sent').waitFor({ state: 'attached' });
    },
  },
];

const folder = testFolder('pictures');
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
mkdirSync('docs/screenshots', { recursive: true });
try {
  for (const { name, path, phone = false, dark = false, before } of SHOTS) {
    const context = await browser.newContext({
      viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
      colorScheme: dark ? 'dark' : 'light',
      hasTouch: phone,
      isMobile: phone,
      locale: 'en-US',
      timezoneId: 'America/New_York',
    });
    const page = await context.newPage();
    await page.goto(`${system.url}${path}`);
    await page.waitForLoadState('load');
    await page.waitForTimeout(1200);
    await before?.(page);
    await page.getByText('being worked out').first().waitFor({ state: 'hidden' });
    await page.waitForTimeout(400);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    await context.close();
  }
} finally {
  await browser.close();
  await system.stop();
  rmSync(folder, { recursive: true, force: true });
}
