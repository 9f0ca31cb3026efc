import { ownCopy } from './driver/own-copy.js';
import { expect, expectAccessible, test } from './driver/test.js';

test('an unknown box is read to confirmed roles, dead and hands-off in their turn; a contradiction is met and settled', async ({
  page,
  house,
  survey,
}) => {
  const job = await ownCopy(page, 'quillon-point', 'identify');
  await page.goto(`${job}/box/radio-door`);
  const lamp = survey.conductors().nth(3);
  await survey.mode('Test');
  await survey.openLine('Readings and box state');

  await test.step('what can be seen in place', async () => {
    await house.switched('5', 'on');
    await survey.switchTo('on');
    const lamp = page.getByRole('group', { name: 'Radio room ceiling, as seen now' });
    await lamp.getByRole('button', { name: 'lit', exact: true }).click();
    await survey.switchTo('off');
    await lamp.getByRole('button', { name: 'dark', exact: true }).click();
    await expect(page.getByText('Readings (2)')).toBeVisible();
  });

  await test.step('live only hands-off: the steps come before the pad', async () => {
    await survey.stands('device out, its conductors capped');
    // Another test than the one proposed: that one is put off.
    await survey.asked(/^Indicator over/);
    await page.getByRole('button', { name: 'Later', exact: true }).click();
    await survey.hold(0);
    await page.getByRole('radio', { name: 'volts, low Z', exact: true }).click();
    await expect(page.getByRole('button', { name: /^123/ })).toHaveCount(0);
    await survey.standClear();
    await survey.meter('volts, low Z', '119');
    await survey.hold(3);
    await survey.meter('volts, low Z', '0.3');
    await expectAccessible(page);
  });

  await test.step('ohms only on a proof of dead, which a switching withdraws', async () => {
    await house.switched('5', 'off');
    await survey.hold(0);
    await survey.meter('volts, low Z', '0.1');
    await survey.hold(1);
    await page.getByRole('radio', { name: 'ohms', exact: true }).click();
    await expect(page.getByText('Ohms are read dead. Prove it first.')).toBeVisible();
    await survey.proveDead('119');
    await survey.meter('ohms', '0.3');
    await house.switched('5', 'on');
    await expect(survey.reckoning()).toContainText(
      'Breaker 5 went on, and whoever proved the box did not know',
    );
  });

  await test.step('the lamp’s black is proved with its reason, and one tap labels it', async () => {
    await expect(lamp).toHaveAccessibleName(/^Black, .* on terminal b of position 1: load, proved$/);
    await survey.reckoning().getByRole('button', { name: 'Why: each conductor with its reason' }).click();
    await expect(survey.reckoning()).toContainText(/the black of .*B: load, proved/);
    await page.getByRole('button', { name: 'Put it down' }).click();
    await survey.mode('Label');
    await survey.hold(3);
    await page.getByRole('button', { name: 'load', exact: true }).click();
    await expect(lamp).toHaveAccessibleName(/^Black, load B.* on terminal b of position 1: load$/);
    await survey.mode('Test');
  });

  await test.step('a reading that cannot be is named with what it clashes with, and can be taken back', async () => {
    await survey.hold(0);
    await survey.meter('volts, low Z', '0.2');
    await expect(page.getByRole('alert')).toContainText('Readings contradict each other');
    await expect(page.getByRole('alert')).toContainText('119 V');
    await expectAccessible(page);
    await page.getByRole('button', { name: /^Readings \(7\)/ }).click();
    await page
      .getByRole('list', { name: 'Readings' })
      .getByRole('button', { name: 'Delete this reading' })
      .last()
      .click();
    await expect(page.getByRole('alert')).toHaveCount(0);
  });

  await test.step('a flag against the readings stays the installer’s word, marked', async () => {
    await survey.mode('Label');
    await survey.hold(3);
    await page.getByRole('button', { name: 'spare', exact: true }).click();
    await expect(lamp).toHaveAccessibleName(/: spare, against the readings, which say load$/);
  });

  await test.step('flags to print and the way back', async () => {
    await page.getByRole('link', { name: 'Flags, and the way back as found' }).click();
    await expect(page.getByRole('listitem').filter({ hasText: 'breaker 5' }).first()).toBeVisible();
    await page.getByRole('checkbox', { name: /^the black of .*B: to terminal b of position 1$/ }).check();
    await expect(page.getByText('1 of 6 ends')).toBeVisible();
    await expectAccessible(page);
  });

  await test.step('the panel finds a breaker in as few looks as can be, and logs them', async () => {
    await house.go('Panel');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Which breaker is it?' }).click();
    // Nine breakers take at most four looks.
    for (const answer of ['Gone', 'Still alive', 'Gone', 'Still alive']) {
      const button = page.getByRole('button', { name: answer });
      if (await button.isVisible()) await button.click();
    }
    await expect(page.getByRole('button', { name: /^Record: .* is on breaker \d$/ })).toBeVisible();
    await page.getByRole('button', { name: 'Close' }).click();
    await expect(page.getByRole('list', { name: 'Log of switchings' })).toContainText(/breaker \d off/);
  });
});
