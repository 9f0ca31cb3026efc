import { ownCopy } from './driver/own-copy.js';
import { expect, expectAccessible, test } from './driver/test.js';

test('a box that does not close is found, understood and helped; a figure is read and set', async ({
  page,
}) => {
  const job = await ownCopy(page, 'quillon-point', 'fit');
  await page.goto(`${job}/fit`);
  const chart = page.getByRole('table', { name: 'Boxes by their trouble' });

  await test.step('the worst box stands first, with its figures', async () => {
    await expect(chart.getByRole('row').nth(1)).toContainText('box fill exceeded');
    await expectAccessible(page);
    await chart.getByRole('link', { name: /^Wash house, fan/ }).click();
    await expect(page.getByRole('heading', { level: 2, name: 'Wash house, fan' })).toBeVisible();
  });
  const box = page.getByRole('region', { name: 'Wash house, fan' });

  await test.step('a block of the stack says its clause and its arithmetic', async () => {
    await box.getByRole('button', { name: /^Conductors from outside, 12 AWG/ }).click();
    await expect(box).toContainText('314.16(B)(1)');
    await expect(box.getByRole('link', { name: 'Where 2.25 in³ comes from' })).toBeVisible();
  });

  await test.step('the keyboard steps through the devices, each judged as if chosen', async () => {
    const name = box.locator('[aria-live=polite]');
    const first = (await name.textContent()) ?? '';
    await page.keyboard.press('ArrowRight');
    await expect(name).not.toHaveText(first);
    await page.keyboard.press('ArrowLeft');
    await expect(name).toHaveText(first);
  });

  await test.step('the best way out is recorded, and the box closes; undone, it does not', async () => {
    const ways = box.getByRole('list', { name: 'Ways out' });
    await expect(ways.getByRole('listitem').first()).toContainText('Extension ring 5/8 in');
    await ways.getByRole('button', { name: 'Record: it is fitted' }).first().click();
    await expect(box.getByText('Box fill, depth and packing OK', { exact: true }).first()).toBeVisible();
    await page.getByRole('button', { name: /^Undo: / }).click();
    await expect(box.getByText('Box fill exceeded', { exact: true }).first()).toBeVisible();
  });

  await test.step('the figure behind it is read at its source and set for this job, with a note that is needed', async () => {
    await box.getByRole('link', { name: /^Where 2.25/ }).click();
    await expect(page.getByText('NEC 2023, Table 314.16(B)(1)').first()).toBeVisible();
    await page.getByRole('button', { name: 'Set our own: Volume a conductor of 12 AWG counts' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('In this job').fill('2.5');
    await dialog.getByRole('button', { name: 'Use it in this job' }).click();
    await expect(dialog.getByRole('alert')).toHaveText('Say why, with its source.');
    await dialog.getByLabel('Why, with its source').fill('The county counts more');
    // A wrong entry does not leave the figure before it to be used.
    for (const wrong of ['abc', '-3', '0', '']) {
      await dialog.getByLabel('In this job').fill(wrong);
      await dialog.getByRole('button', { name: 'Use it in this job' }).click();
      await expect(dialog.getByRole('alert')).toBeVisible();
    }
    await dialog.getByLabel('In this job').fill('2.5');
    await dialog.getByRole('button', { name: 'Use it in this job' }).click();
    await expect(page.getByText('Of this job: The county counts more')).toBeVisible();
    await expectAccessible(page);
    await page.goto(`${job}/fit/wash-fan`);
    await expect(box.getByText(/of this job’s own. The county counts more/)).toBeVisible();
    await page.goto(`${job}/figures`);
    await page.getByRole('button', { name: /^Back to the usual figure/ }).click();
    await expect(page.getByText('This job uses the usual figures throughout.')).toBeVisible();
  });
});
