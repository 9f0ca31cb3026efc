import type { Job } from '@inventario/core';
import { ownCopy } from './driver/own-copy.js';
import { Run } from './driver/run.js';
import { expect, expectAccessible, test } from './driver/test.js';

const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const;

/** Some boxes of the ground floor, one open at once. */
const someBoxes =
  (...boxIds: string[]) =>
  (copy: Job) => {
    copy.selections = copy.selections.filter(({ boxId }) => boxIds.includes(boxId));
    Object.assign(copy, { run: { openAtOnce: 1 } });
  };

test.describe('by thumb', () => {
  test.use({ ...phone, colorScheme: 'dark' });

  test('a day of three batches, begun without network and gone on with on another day', async ({
    page,
    context,
    house,
  }) => {
    const job = await ownCopy(page, 'tern-house', 'three-batches', someBoxes('hall', 'snug', 'reading'));
    const run = new Run(page, job);
    await page.goto(`${job}/day`);
    await expect(page.getByRole('heading', { name: 'Batch 3' })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('link', { name: 'Go to the first batch' }).tap();
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    const tried = page.getByText(/^Try (?!it before)/);
    const begin = page.getByRole('button', { name: 'Begin this batch' });
    await test.step('the first without network', async () => {
      await context.setOffline(true);
      await run.until(() => tried.isVisible());
      await expectAccessible(page);
      await context.setOffline(false);
      await run.until(() => begin.isVisible());
      await house.sent();
    });
    // Off for the work, on to try it, off to close it, on for good: four trips, each asked for once.
    const trips = run.asked.filter((name) => name.startsWith('Record'));
    expect(trips.map((name) => name.split(' ').at(-1))).toEqual(['off', 'on', 'off', 'on']);
    const title = page
      .getByText(/^Step \d+ of/)
      .locator('xpath=..')
      .locator('strong');
    await test.step('the second is left in the middle, and goes on at the same step', async () => {
      await begin.tap();
      await run.until(async () =>
        /^(Cut|Strip|Joint|Land)/.test((await title.textContent({ timeout: 500 }).catch(() => '')) ?? ''),
      );
      const where = (await title.textContent()) ?? '';
      await house.sent();
      await page.goto('/');
      await page.goto(`${job}/install`);
      await expect(title).toHaveText(where);
      await expect(page.getByText('in your hands')).toBeVisible();
      await run.until(() => begin.isVisible());
    });
    await test.step('the third, to the end of the day', async () => {
      await run.until(() => page.getByText('Nothing is left to be installed').isVisible());
      await page.goto(`${job}/day`);
      await expect(page.getByText('Nothing is left to be worked on')).toBeVisible();
    });
  });

  test('a reversed pair is found by what is seen, put right, and tried again', async ({ page }) => {
    const mounted = (copy: Job) => {
      someBoxes('hall')(copy);
      copy.events.push(
        { id: 'd-batch', kind: 'batch', boxIds: ['hall'], at: '2026-05-04T09:00:00Z' } as never,
        { id: 'd-mounted', kind: 'mounted', boxId: 'hall', at: '2026-05-04T10:00:00Z' },
        { id: 'd-on', kind: 'switched', circuitId: 't1', state: 'on', at: '2026-05-04T10:01:00Z' },
      );
    };
    const job = await ownCopy(page, 'tern-house', 'reversed-pair', mounted);
    await page.goto(`${job}/install`);
    const tile = (question: string, answer: string) =>
      page.getByRole('group', { name: question }).getByRole('button', { name: answer }).tap();
    await test.step('what is not so is touched as it is tried', async () => {
      await page.getByRole('button', { name: /^Its light shows/ }).tap();
      await tile('Its light', 'dark');
      await page.getByRole('button', { name: /^From the wall it works/ }).tap();
      await tile('Its key works the load', 'not at all');
      await tile('The lamp, worked from the wall', 'never comes on');
      await expectAccessible(page);
      await page.getByRole('button', { name: 'It does not work' }).tap();
    });
    await tile('What else hangs on this box', 'as before');
    await tile('The breaker', 'holds');
    const causes = page.getByRole('region', { name: 'Causes' }).first();
    await expect(causes.getByRole('button', { name: /^Line and load are exchanged/ })).toContainText(
      'Shows all of it',
    );
    await expectAccessible(page);
    // Nothing is swapped to see: it is looked at, dead, on this box's own drawing.
    await causes.getByRole('button', { name: /^Line and load are exchanged/ }).tap();
    await expect(page.getByText('Switch off, take the device out, and prove dead.')).toBeVisible();
    await expect(page.getByRole('img', { name: /as planned/ })).toBeVisible();
    await page.getByRole('button', { name: 'It was this, and is put right' }).tap();
    await page.getByRole('button', { name: 'All of it works' }).tap();
    await expect(page.getByText('Nothing is left to be installed')).toBeVisible();
  });
});

test('two phones on one batch: what one holds is not offered to the other', async ({ browser, system }) => {
  const [first, second] = [
    await browser.newContext({ ...phone, baseURL: system.url }),
    await browser.newContext({ ...phone, baseURL: system.url }),
  ];
  const [one, two] = [await first.newPage(), await second.newPage()];
  const job = await ownCopy(one, 'tern-house', 'two-phones', (copy) => {
    someBoxes('hall', 'snug')(copy);
    Object.assign(copy, { run: { openAtOnce: 2 } });
  });
  const [left, right] = [new Run(one, job), new Run(two, job)];
  await Promise.all([left.open(), right.open()]);
  const take = (page: typeof one) => page.getByRole('button', { name: /^Take .* in hand$/ });
  await left.until(() => take(one).isVisible());
  const held = (await take(one).textContent()) ?? '';
  await take(one).tap();
  await expect(one.getByText('in your hands')).toBeVisible();
  await test.step('the other sees whose it is, and is offered the next', async () => {
    await expect(two.getByText('in other hands')).toBeVisible();
    await expect(take(two)).toBeVisible();
    await expect(take(two)).not.toHaveText(held);
    await take(two).tap();
    await expect(two.getByText('in your hands')).toBeVisible();
  });
  await test.step('each works its own; power is switched when both are done', async () => {
    const waits = (page: typeof one) => page.getByText('The rest is in other hands').isVisible();
    await left.until(() => waits(one));
    await expect(one.getByRole('button', { name: /^Record: switched/ })).toBeHidden();
    await right.until(() => two.getByRole('button', { name: 'Record: switched on' }).isVisible());
    await expect(one.getByRole('button', { name: 'Record: switched on' })).toBeVisible();
  });
  await test.step('a box that is given out of hand can be taken', async () => {
    await one
      .getByRole('button', { name: /^More at/ })
      .first()
      .tap();
    await one.getByRole('menuitem', { name: 'Out of my hands' }).tap();
    await expect(two.getByText('in nobody’s hands')).toBeVisible();
  });
  await Promise.all([first.close(), second.close()]);
});
