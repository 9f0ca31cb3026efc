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
    name: 'day',
    path: '/jobs/tern-house/day',
    before: (page) => page.getByRole('heading', { name: 'Batch 1' }).waitFor(),
  },
  {
    name: 'diagnose',
    path: '/jobs/tern-house/box/hall/diagnose/1',
    before: async (page) => {
      const touch = (question: string, answer: string) =>
        page.getByRole('group', { name: question }).getByRole('button', { name: answer }).click();
      await touch('Its light', 'lit');
      await touch('Its key works the load', 'not at all');
      await touch('The lamp, worked from the wall', 'never goes off');
      await page.getByText('Best next test').first().waitFor();
    },
  },
  {
    // It writes into the demo, so it comes last.
    name: 'install-phone',
    path: '/jobs/tern-house/install',
    phone: true,
    dark: true,
    before: async (page) => {
      await page.getByRole('button', { name: 'Begin this batch' }).tap();
      await page.getByRole('button', { name: 'Record: switched off' }).tap();
      await page.getByRole('button', { name: /^Take .* in hand$/ }).tap();
      await page.getByText(/^Step 1 of/).waitFor();
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
