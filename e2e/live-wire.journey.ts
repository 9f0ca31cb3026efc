import { ownCopy } from './driver/own-copy.js';
import { expect, expectAccessible, test } from './driver/test.js';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

test('a wire that is live with its breaker off stops the work; the right breaker is named, and the box proved dead', async ({
  page,
  house,
  survey,
}) => {
  const job = await ownCopy(page, 'quillon-point', 'live-wire');
  await page.goto(`${job}/box/radio-door`);
  const bar = page.getByRole('region', { name: 'Power' });
  const stop = page.getByRole('alert', { name: 'Stop' });

  await test.step('every breaker of the box off, and the indicator alerts', async () => {
    await house.switched('5', 'off');
    await survey.mode('Test');
    await survey.hold(0);
    await page.getByRole('button', { name: 'alert', exact: true }).tap();
    await page.getByRole('button', { name: 'Put it down' }).tap();
    await page.getByRole('button', { name: 'Show what stops the work' }).tap();
    await expect(stop.last()).toBeInViewport();
    await expect(stop.last()).toContainText(/Breakers .*3, 4, 6.* or 9 could feed it/);
    await expect(bar.getByRole('link', { name: 'Live while off' })).toBeVisible();
    await expectAccessible(page);
  });

  await test.step('no dead test, and no proof, before its source is found', async () => {
    await survey.hold(0);
    await page.getByRole('radio', { name: 'ohms', exact: true }).tap();
    await expect(page.getByText('Find what feeds it first.')).toBeVisible();
    await expect(page.getByRole('button', { name: /under 5 V/ })).toHaveCount(0);
    await page.getByRole('radio', { name: 'indicator', exact: true }).tap();
  });

  await test.step('the board and every other page say so', async () => {
    await page.goto(job);
    await expect(bar.getByRole('link', { name: 'Live while off: Radio room, door' })).toBeVisible();
    await bar.getByRole('link', { name: 'Live while off: Radio room, door' }).tap();
    await expect(page.getByLabel('Box', { exact: true })).toHaveValue('Radio room, door');
  });

  await test.step('one breaker more off at a time: it is not 3, it is 9', async () => {
    await stop.first().getByRole('button', { name: '3 is off now' }).tap();
    await stop.first().getByRole('button', { name: 'Still live' }).tap();
    await expect(stop.first().getByRole('button', { name: '3 is off now' })).toHaveCount(0);
    await stop.first().getByRole('button', { name: '9 is off now' }).tap();
    await stop.first().getByRole('button', { name: 'No longer live' }).tap();
    await expect(stop).toHaveCount(0);
    await expect(page.getByText('Breaker 9 feeds this box too.')).toBeVisible();
    await page.getByRole('button', { name: 'Add breaker 9 to the box' }).tap();
    await expect(bar).toContainText(/9 .*: offfeeds this box/);
  });

  await test.step('then it is proved, in two stages that ask for their readings', async () => {
    await page.getByRole('button', { name: 'Why' }).tap();
    const proof = page.getByRole('dialog', { name: 'Why' });
    await proof.getByRole('button', { name: 'another' }).tap();
    const source = proof.getByLabel(/^Tester on a known source/);
    await source.fill('3');
    await expect(source).toHaveAttribute('aria-invalid', 'true');
    await expect(proof).toContainText('At least 50.');
    await expect(proof.getByRole('button', { name: /^Record/ })).toBeDisabled();
    await source.fill('119');
    await proof.getByRole('button', { name: 'Record 119 V' }).tap();
    for (const stands of ['Once more with the device out', 'Proved dead with the device out']) {
      await proof.getByRole('button', { name: /under 5 V, 119 V again$/ }).tap();
      await expect(proof).toContainText(stands);
    }
  });
});
