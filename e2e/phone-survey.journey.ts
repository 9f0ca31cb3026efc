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
  await survey.startFrom('Switch loop');
  await survey.enclosure('22.5', '3.25');
  await survey.mode('Label');
  await survey.conductors().first().tap();
  await survey.labelByThumb(['line', 'load']);
  await expect(survey.conductors().nth(0)).toHaveAccessibleName(
    /^Black, feed.*, on terminal a of position 1: line$/,
  );
  await expect(survey.conductors().nth(1)).toHaveAccessibleName(
    /^White, feed.*, on terminal b of position 1: load$/,
  );
  await survey.openLine('Position');
  await survey.pick('Controls', 'Boat store floods');
  await page.getByRole('button', { name: 'Why' }).tap();
  const reckoning = page.getByRole('dialog', { name: 'Why' });
  await expect(reckoning).toContainText('11.25 in³ used of 22.50 in³, 11.25 in³ left');
  await expectAccessible(page);
  await reckoning.getByRole('button', { name: 'Close' }).tap();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
