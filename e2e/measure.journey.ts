import { newHouse } from './driver/new-house.js';
import { Taps } from './driver/taps.js';
import { expect, expectAccessible, test } from './driver/test.js';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

/** A usual box: power at the switch, read from nothing to what is proved. */
test('a usual box is measured by thumb: line, load and neutral proved in at most 25 taps and 6 scrolls', async ({
  page,
}) => {
  const job = await newHouse(page, 'usual', [{ name: 'door' }]);
  await page.goto(`${job}/box/usual-door`);
  const thumb = new Taps(page);
  const conductor = (at: number) => page.locator('[data-conductor]').nth(at);

  await test.step('what can be told before anything is opened', async () => {
    await thumb.asked('What does the switch control?');
    await thumb.press(/^Hall ceiling/);
    await thumb.asked('Signal here');
    await thumb.press('3 bars');
    await thumb.asked('Switch breaker 12 on');
    await thumb.press('Breaker 12 is on');
    await thumb.asked('Work the switch, watch Hall ceiling');
    await thumb.press(/^follows it/);
  });
  await test.step('off, proved at the face, out, what it looks like, proved again', async () => {
    await thumb.press('Breaker 12 is off, locked');
    await thumb.asked('Prove it dead at the face');
    await thumb.press('119 V');
    await thumb.press(/^119 V, every terminal under 5 V/);
    await thumb.press('Device out, conductors capped');
    await thumb.asked('Which of these does it look like?');
    await thumb.press(/^Power at the switch Two cables/);
    await thumb.press(/^18\.00.*as Hall, stairs$/);
    await thumb.asked('Prove it dead, device out');
    await expectAccessible(page);
    await thumb.press(/^119 V, all \d+ under 5 V/);
  });
  await test.step('the line is found: on, touch what alerted, off', async () => {
    await thumb.press('All clear, breaker 12 is on');
    await thumb.asked('touch what alerts');
    await expectAccessible(page);
    await thumb.tap(conductor(0));
    await thumb.press('Breaker 12 is off, locked');
    await thumb.press(/^119 V, all \d+ under 5 V/);
  });
  await test.step('dead, then hands off: neutral, line, load', async () => {
    await thumb.asked(/^Ohms: the white of cable A to a known earth/);
    await thumb.press('0.3 ohm');
    await thumb.asked(/^Volts, low impedance: the black of cable A to a known earth/);
    await thumb.press('0 V');
    await thumb.press('Clipped, breaker 12 is on');
    await thumb.press('119 V');
    await thumb.press('Breaker 12 is off, locked');
    await thumb.press(/^119 V, all \d+ under 5 V/);
    await thumb.press('Clipped, breaker 12 is on');
    await thumb.asked(/^Volts, low impedance: the black of cable B to a known earth/);
    await thumb.press('0.1 V');
  });
  for (const [at, role] of ['line', 'neutral', undefined, 'load', 'neutral'].entries())
    if (role) await expect(conductor(at)).toHaveAccessibleName(new RegExp(`: ${role}, proved$`));
  expect(thumb.taps, thumb.said.join('\n')).toBeLessThanOrEqual(25);
  expect(thumb.scrolls).toBeLessThanOrEqual(6);
});

test('an end is dragged to a joint and dropped: with the mouse, and back with one undo', async ({ page }) => {
  const job = await newHouse(page, 'dragged', [{ name: 'door' }]);
  await page.goto(`${job}/box/dragged-door`);
  await page.getByRole('button', { name: /^Power at the switch Two cables/ }).click();
  const black = page.locator('[data-conductor]').first();
  await expect(black).toHaveAccessibleName(/on terminal a of position 1/);
  await page.getByRole('radio', { name: 'Move ends' }).click();
  const end = await page.locator('[data-end]').first().boundingBox();
  const joint = await page.getByRole('button', { name: /^Joint 1:/ }).boundingBox();
  if (!end || !joint) throw new Error('the ends and joints of the box are drawn');
  await page.mouse.move(end.x + end.width / 2, end.y + end.height / 2);
  await page.mouse.down();
  await page.mouse.move(joint.x + joint.width / 2, joint.y + joint.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(black).toHaveAccessibleName(/in joint 1/);
  await page.getByRole('button', { name: /^Undo: / }).click();
  await expect(black).toHaveAccessibleName(/on terminal a of position 1/);
});
