import { ownCopy } from './driver/own-copy.js';
import { Pairing } from './driver/pairing.js';
import { expect, expectAccessible, test } from './driver/test.js';

const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const;

test.describe('on the phone, in the dark', () => {
  test.use({ ...phone, colorScheme: 'dark' });

  test('a room is paired by hand without any network, and nothing of it is lost', async ({
    page,
    context,
    house,
  }) => {
    // Three devices of the ground floor, none of them tried yet.
    const job = await ownCopy(page, 'heron-house', 'pair-by-hand', (copy) => {
      copy.selections = copy.selections.filter(({ boxId }) => ['hall', 'snug', 'reading'].includes(boxId));
      Object.assign(copy, { pairings: [], automations: [], opposites: [] });
    });
    const pairing = new Pairing(page);
    await pairing.open(job);
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await context.setOffline(true);
    await expect(pairing.hand).toContainText('In pairing mode it shows amber and green, slow.');
    await expectAccessible(page);
    await pairing.until('Join it');
    await pairing.press('It did not');
    await page.getByRole('dialog').getByRole('button', { name: 'nothing found' }).click();
    // Never the same again without a change: a look or something to put right comes before the next try.
    await expect(pairing.next).not.toHaveText('Join it');
    for (const box of ['Hall', 'Snug', 'Snug, reading corner']) {
      await expect(pairing.hand.getByRole('heading')).toHaveText(box);
      await pairing.until('Update it');
      await pairing.toTheEnd();
      if (box !== 'Snug, reading corner') await pairing.press(/^Next:/);
    }
    await expect(page.getByText(/^3 of 3 paired, 3 done/).first()).toBeVisible();
    await context.setOffline(false);
    await house.sent();
    await page.reload();
    await expect(page.getByText(/^3 of 3 paired, 3 done/).first()).toBeVisible();
  });
});

test('the same over the house: a weak signal, a wrong password and a hub that does not listen', async ({
  page,
  system,
}) => {
  const job = await ownCopy(page, 'heron-house', 'pair-over-site');
  const scenario = await page.request.put(`${system.siteUrl}/scenario`, {
    data: {
      speed: 20,
      hubs: { 'ha-hub': { joining: false } },
      faults: { 'attic-low/1': ['weak-signal'], 'kitchen/3': ['wrong-password'] },
      beyondHelp: { 'larder/1': ['registered-elsewhere'] },
      foundTwice: ['kitchen/3/1'],
      stuckUpdates: { 'kitchen/2': 1 },
      draws: { 'kitchen/3/1': 0.5 },
    },
  });
  expect(scenario.ok()).toBe(true);
  const pairing = new Pairing(page);
  await test.step('the password: typed again, then it joins; its meter tells of dark lamps', async () => {
    await pairing.open(job, 'kitchen/3');
    await pairing.way('over the house');
    await expect(pairing.next).toHaveText('Type the password again');
    await pairing.joinOverTheHouse();
    await pairing.toTheEnd();
    await expect(page.getByRole('list', { name: 'Its story' })).toContainText('password typed again');
    await expect(page.getByRole('list', { name: 'Live' })).toContainText('2 lamps dark or missing');
    await expectAccessible(page);
  });
  await test.step('the hub is opened for joining; its update stops once', async () => {
    await pairing.open(job, 'kitchen/2');
    await pairing.joinOverTheHouse();
    await pairing.until('Its update is stuck');
    await pairing.until('Name it');
  });
  await test.step('the signal is brought nearer', async () => {
    await pairing.open(job, 'attic-low/1');
    await pairing.joinOverTheHouse();
  });
});

test('names, rules, and a year of them: what is told and what clashes', async ({ page, house }) => {
  const job = await ownCopy(page, 'heron-house', 'names-and-rules');
  await page.goto(`${job}/names`);
  const hand = page.getByRole('region', { name: 'In the hand' });
  await expect(hand).toContainText('This is the name it came with');
  await hand.getByLabel('Name', { exact: true }).fill('Hall light');
  await expect(hand).toContainText('has the same name');
  await hand.getByRole('button', { name: /^Rather/ }).click();
  await hand.getByRole('button', { name: 'Name it so' }).click();
  await expect(page.getByText('“turn on Sink light”, “turn off Sink light”').first()).toBeVisible();
  await expectAccessible(page);
  await house.go('Rules');
  await expect(
    page.getByText(/set "Hall light" \(Hall\) to different states in the same minute/).first(),
  ).toBeVisible();
  await page.getByLabel('Date').fill('2026-11-01');
  await expect(page.getByRole('list', { name: 'Firings of 2026-11-01' })).toContainText(
    '23:00 Hall at night',
  );
  await page.getByRole('button', { name: 'New rule' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name', { exact: true }).fill('Bench off for the night');
  await dialog.getByLabel('At', { exact: true }).fill('22:15');
  await dialog.getByRole('button', { name: /^Target 1/ }).click();
  await page.getByRole('option', { name: /^"Bench light"/ }).click();
  await dialog.getByRole('button', { name: /^What 1 does/ }).click();
  await page.getByRole('option', { name: 'off', exact: true }).click();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Keep the rule' }).click();
  const rule = page
    .getByRole('list', { name: 'Rules' })
    .getByRole('listitem')
    .filter({ hasText: 'Bench off for the night' });
  await expect(rule).toContainText('At 22:15: "Bench light" (Workroom, door, 1) off.');
  await rule.getByRole('button', { name: 'Seen to fire' }).click();
  await expect(rule).toContainText('Seen to fire at');
  // What nothing switched off before is switched off now.
  await expect(page.getByText(/switch "Bench light" \(Workroom, door, 1\) on; no rule/)).toHaveCount(0);
  await expect(
    page.getByRole('figure', { name: 'All rules over a year, with sunrise and sunset' }),
  ).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'As a calendar file' }).click();
  expect((await file).suggestedFilename()).toMatch(/-rules\.ics$/);
  await expectAccessible(page);
});
