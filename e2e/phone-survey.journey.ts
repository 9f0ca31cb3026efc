import { expect, expectAccessible, test } from './driver/test.js';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, colorScheme: 'dark' });

test('a usual box is surveyed by thumb, and nothing is wider than the screen', async ({ page, survey }) => {
  await page.goto('/jobs/quillon-point');
  await page.getByRole('button', { name: 'Walk' }).tap();
  await page
    .getByRole('dialog')
    .getByRole('link', { name: /^Boat store, slipway/ })
    .tap();
  await expect(page.getByLabel('Box', { exact: true })).toHaveValue('Boat store, slipway');
  await expectAccessible(page);
  await survey.enclosure('22.5', '3.25');
  await survey.startFrom('Switch loop');
  await survey.labelByThumb(['line', 'load']);
  await expect(survey.conductors().nth(0)).toHaveAccessibleName(
    'black, 12 AWG, on terminal a of position 1: line',
  );
  await expect(survey.conductors().nth(1)).toHaveAccessibleName(
    'white, 12 AWG, on terminal b of position 1: load',
  );
  await page.getByRole('button', { name: 'Put it down' }).tap();
  await survey.pick('Works', 'Boat store floods');
  await page.getByRole('button', { name: 'Why' }).tap();
  const reckoning = page.getByRole('dialog', { name: 'Reckoning' });
  await expect(reckoning).toContainText('11.25 in³ used of 22.50 in³, 11.25 in³ left');
  await expect(reckoning.getByRole('region', { name: 'Next' })).toContainText('Choose a device');
  await expectAccessible(page);
  await reckoning.getByRole('button', { name: 'Close' }).tap();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
