import { ownCopy } from './driver/own-copy.js';
import { expect, expectAccessible, test } from './driver/test.js';
import { Wire } from './driver/wire.js';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, colorScheme: 'dark' });

test('a box of two devices goes together by thumb, from what was chosen to the plate', async ({ page }) => {
  const job = await ownCopy(page, 'tern-house', 'wire-two');
  await page.goto(`${job}/wiring`);
  await page.getByRole('link', { name: /Workroom, door/ }).tap();
  await expect(page.getByText('Ready: proved in every state').first()).toBeVisible();
  // No hand goes in before the box is proved.
  const wire = new Wire(page, job, ['3', '4']);
  await page.getByRole('button', { name: 'After' }).tap();
  await expect(page.getByText('Not yet: this is done dead, and proved.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Done$/ })).toBeHidden();
  await page.getByRole('button', { name: 'Before' }).tap();
  await expectAccessible(page);
  await wire.toTheEnd();
  const joints = wire.done.filter((title) => /^Joint/.test(title));
  expect(joints[0]).toMatch(/ground$/);
  // Two circuits on one neutral: one joint for both, and it comes after the ground.
  expect(joints[1]).toMatch(/neutral/);
  expect(wire.done.indexOf('Try it before folding')).toBeLessThan(wire.done.indexOf('Fold it in'));
  await expect(page.getByText('Mounted').first()).toBeVisible();
  await page.goto(`${job}/wiring`);
  await expect(page.getByRole('link', { name: /Workroom, door/ })).toContainText('Mounted');
});

test('a stair goes together at both its boxes, the one waiting for the other', async ({ page }) => {
  const job = await ownCopy(page, 'tern-house', 'wire-stair');
  for (const box of ['stair-low', 'stair-high']) {
    const wire = new Wire(page, job, ['2']);
    await wire.open(box);
    await wire.toTheEnd();
    // A traveler carries the line up, and is marked so at both ends; the other has the signal.
    expect(wire.done).toContain('Re-mark what carries something else now');
    expect(wire.done.some((title) => /signal over a traveler/.test(title))).toBe(true);
    await expect(page.getByText('Mounted').first()).toBeVisible();
  }
  await page.goto(job);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
});

test('what cannot be ready says why, and where that is changed', async ({ page }) => {
  const job = await ownCopy(page, 'tern-house', 'wire-not');
  await page.goto(`${job}/box/work-store/wire`);
  const found = page.getByRole('list', { name: 'What is found' }).first();
  await expect(found).toContainText('wants a neutral of its own circuit');
  await expect(page.getByText(/^Step \d/)).toBeHidden();
  await found.getByRole('link', { name: 'Choose' }).tap();
  await expect(page).toHaveURL(/choose\/1$/);
});
