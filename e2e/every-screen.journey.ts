import type { Page } from '@playwright/test';
import { ownCopy } from './driver/own-copy.js';
import { expect, expectAccessible, test } from './driver/test.js';

/** Every view of a job, and what is there once it has answered. */
const VIEWS: { path: string; ready: (page: Page) => ReturnType<Page['getByRole']> }[] = [
  { path: '', ready: (page) => page.getByRole('table') },
  { path: '/brief', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/house', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/panel', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/fit', ready: (page) => page.getByRole('table', { name: 'Boxes by their trouble' }) },
  { path: '/fit/wash-fan', ready: (page) => page.getByRole('list', { name: 'Ways out' }) },
  { path: '/plans', ready: (page) => page.getByRole('table', { name: 'Plans by strategy' }) },
  { path: '/materials', ready: (page) => page.getByRole('table').first() },
  { path: '/wiring', ready: (page) => page.getByRole('link', { name: /Ready|Not ready/ }).first() },
  {
    path: '/box/kitchen-door/wire',
    ready: (page) => page.getByRole('region', { name: 'Read it as a list' }),
  },
  { path: '/day', ready: (page) => page.getByRole('heading', { name: 'Batch 1' }) },
  { path: '/install', ready: (page) => page.getByRole('button', { name: 'Begin this batch' }) },
  {
    path: '/box/kitchen-range/diagnose/1',
    ready: (page) => page.getByRole('group', { name: 'The breaker' }),
  },
  { path: '/pair', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/tune', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/names', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/rules', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/catalogue', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/figures', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/history', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/box/bunk-door', ready: (page) => page.locator('[data-conductor]').first() },
  { path: '/box/boat-slip', ready: (page) => page.getByRole('button', { name: /^Switch loop/ }) },
  { path: '/box/radio-door/flags', ready: (page) => page.getByRole('list', { name: 'Flags' }) },
  { path: '/box/radio-door/photos', ready: (page) => page.getByRole('heading', { level: 1 }) },
  { path: '/box/stair-head/choose/1', ready: (page) => page.getByText(/^Of \d+ devices/) },
];

for (const { name, width, height } of [
  { name: 'phone', width: 390, height: 844 },
  { name: 'desk', width: 1280, height: 800 },
])
  for (const colorScheme of ['light', 'dark'] as const)
    test.describe(`${name}, ${colorScheme}`, () => {
      test.use({ viewport: { width, height }, colorScheme });
      test(`every screen on the ${name}, ${colorScheme}: no finding, its own title, not too wide`, async ({
        page,
      }) => {
        const job = await ownCopy(page, 'quillon-point', `all-${name}-${colorScheme}`);
        const titles = new Set<string>();
        for (const { path, ready } of VIEWS)
          await test.step(path || 'board', async () => {
            await page.goto(`${job}${path}`);
            await expect(ready(page)).toBeVisible();
            await expectAccessible(page);
            titles.add(await page.title());
            expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
              width,
            );
          });
        await page.goto('/');
        await expect(page.getByRole('heading', { name: /^Quillon Point/ }).first()).toBeVisible();
        await expectAccessible(page);
        titles.add(await page.title());
        // The ways out of a box are on the page of the house's boxes.
        expect(titles.size).toBeGreaterThanOrEqual(VIEWS.length);
      });
    });

test.describe('a narrow screen', () => {
  test.use({ viewport: { width: 320, height: 700 } });
  test('nothing is wider than 320 px', async ({ page }) => {
    for (const { path, ready } of VIEWS) {
      await page.goto(`/jobs/quillon-point${path}`);
      await expect(ready(page)).toBeVisible();
      const over = await page.evaluate(() => {
        const bench = document.querySelector('main');
        return Math.max(
          document.documentElement.scrollWidth - innerWidth,
          bench ? bench.scrollWidth - bench.clientWidth : 0,
        );
      });
      expect({ path, over }).toEqual({ path, over: 0 });
    }
  });
});
