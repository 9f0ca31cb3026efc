import { readFileSync } from 'node:fs';
import { ownCopy } from './driver/own-copy.js';
import { expect, expectAccessible, test } from './driver/test.js';

test('from the client’s words to a shopping list', async ({ page }) => {
  const job = await ownCopy(page, 'quillon-point', 'quillon-choosing');

  await test.step('the brief: an answer says what it leaves, and the next question is one touch away', async () => {
    await page.goto(`${job}/brief`);
    const assistants = page.getByRole('region', { name: 'Apps and assistants' });
    const must = assistants
      .getByRole('group', { name: 'Will you use Bellwether?' })
      .getByRole('button', { name: /^We must have it/ });
    const promised = Number((await must.textContent())?.match(/\d+/)?.[0]);
    await must.click();
    await expect(page.getByRole('definition').nth(1)).toHaveText(String(promised));
    await assistants
      .getByRole('group', { name: 'Will you use Bellwether?' })
      .getByRole('button', { name: /^No/ })
      .click();
    await page.getByRole('button', { name: 'Ask next: room by room' }).click();
    await page.getByRole('button', { name: /^Set the usual/ }).click();
    await expect(page.getByRole('link', { name: /^Everything is asked/ })).toBeVisible();
    await expect(
      page
        .getByRole('group', { name: 'Guest bunk, fan and light' })
        .getByRole('button', { name: 'fan speeds' }),
    ).toHaveAttribute('aria-pressed', 'true');
    await expectAccessible(page);
  });

  await test.step('a place: what is not proved names its test and jumps there', async () => {
    await page.goto(`${job}/box/radio-door/choose/1`);
    const plain = page.getByRole('listitem', { name: 'Pellworth Plain 15', exact: true });
    await plain
      .getByRole('link', { name: /^Test: / })
      .first()
      .click();
    await expect(page.getByRole('heading', { name: 'Survey of Radio room, door' })).toBeAttached();
    await expect(page.getByRole('radio', { name: 'Test', exact: true })).toBeChecked();
  });

  await test.step('against advice: a reason is asked for, and it stays', async () => {
    await page.goto(`${job}/box/radio-desk/choose/1`);
    await page.getByRole('radio', { name: /^All, with/ }).click();
    await page
      .getByRole('listitem', { name: 'Pellworth Plain 15', exact: true })
      .getByRole('button', { name: 'Choose all the same' })
      .click();
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('button', { name: 'Choose it all the same' }).click();
    await expect(dialog.getByRole('alert')).toHaveText('Say why, in a few words.');
    await dialog.getByLabel('Why').fill('A neutral is pulled next week');
    await dialog.getByRole('button', { name: 'Choose it all the same' }).click();
    await expect(page.getByText('Chosen against advice: A neutral is pulled next week')).toBeVisible();
    await expect(page.getByRole('region', { name: 'Against advice' })).toContainText(
      'A neutral is pulled next week',
    );
  });

  await test.step('the house: a device ruled out is in no plan; the plan is adopted', async () => {
    await page.goto(`${job}/plans`);
    const table = page.getByRole('table', { name: 'Plans by strategy' });
    await expect(table.getByRole('row', { name: /^Places served/ })).toContainText('of 23');
    await expectAccessible(page);
    const places = page.getByRole('region', { name: 'Place by place' });
    const door = places.getByRole('listitem').filter({ hasText: 'Kitchen, over the sink' });
    const device = (await door.locator('strong').textContent()) ?? '';
    await door.getByRole('button', { name: `Rule out ${device} at Kitchen, over the sink` }).click();
    await expect(door.locator('strong')).not.toHaveText(device);
    await page.getByRole('button', { name: 'Allow again' }).click();
    await expect(door.locator('strong')).toHaveText(device);
    await door.getByRole('button', { name: /^Pin / }).click();
    await expect(door.getByRole('button', { name: 'Unpin' })).toBeVisible();
    await page.getByRole('button', { name: 'Work out what it would cost' }).click();
    await expect(page.getByRole('region', { name: 'One more wish' })).toContainText('Bellwether as a must');
    await page.getByRole('button', { name: /^Adopt: / }).click();
    await expect(page.getByRole('button', { name: 'This plan is the choice' })).toBeVisible();
  });

  await test.step('a control without a box, judged by what it reaches', async () => {
    await page.getByRole('button', { name: 'Add a control' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name').fill('By the bunk');
    await dialog.getByRole('button', { name: 'Keep the control' }).click();
    await expect(dialog.getByRole('alert')).toHaveText('Say which device it is.');
    await dialog.getByRole('button', { name: 'Device' }).click();
    await page.getByRole('option', { name: 'Wrenlock Pebble dial' }).click();
    await dialog.getByRole('button', { name: 'Keep the control' }).click();
    await expect(page.getByRole('listitem', { name: 'By the bunk' })).toContainText(
      'What it is to control has not been said.',
    );
  });

  await test.step('materials: what is in hand is not bought, and the list goes out as CSV and as a workbook', async () => {
    await page.getByRole('navigation', { name: 'Phases' }).getByRole('link', { name: 'Materials' }).click();
    const screws = page.getByRole('row', { name: 'Wrenlock Nest' });
    await screws.getByRole('button', { name: 'Mark as in hand' }).click();
    await expect(screws).toContainText('1 in hand');
    await expectAccessible(page);
    const [csv] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save it as CSV' }).click(),
    ]);
    const text = readFileSync(await csv.path(), 'utf8');
    expect(text).toContain('Wrenlock Nest');
    const [workbook] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save the list as a workbook' }).click(),
    ]);
    // A workbook is an archive, and begins like one.
    expect(
      readFileSync(await workbook.path())
        .subarray(0, 2)
        .toString(),
    ).toBe('PK');
  });
});

test('the catalogue: found, compared, typed in, taken in and given out', async ({ page }) => {
  const job = await ownCopy(page, 'quillon-point', 'quillon-catalogue');
  await page.goto(`${job}/catalogue`);

  await test.step('devices are found by words and compared', async () => {
    await page.getByLabel('Find').fill('mesh dimmer');
    await page.getByRole('checkbox', { name: 'Compare Halvorn Ridge dimmer' }).check();
    await page.getByRole('checkbox', { name: 'Compare Halvorn Quiet mesh dimmer' }).check();
    await page.getByRole('button', { name: 'Compare 2' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('row', { name: /^Feel/ })).toContainText('silent');
    await expectAccessible(page);
    await dialog.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('a data sheet typed in; what does not hold together is named by its field', async () => {
    await page.getByRole('button', { name: 'Add a device' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('button', { name: 'Keep the data sheet' }).click();
    await expect(dialog.getByRole('alert')).toContainText('/maker is empty');
    await dialog.getByLabel('Maker', { exact: true }).fill('Halvorn');
    await dialog.getByLabel('Model', { exact: true }).fill('Journey one');
    await dialog.getByLabel('Family', { exact: true }).fill('halvorn');
    await dialog.getByRole('listitem', { name: 'LOAD' }).getByLabel('Channel').fill('3');
    await dialog.getByRole('button', { name: 'Keep the data sheet' }).click();
    await expect(dialog.getByRole('alert')).toContainText('/terminals/1/channel names the channel 3');
    await dialog.getByRole('listitem', { name: 'LOAD' }).getByLabel('Channel').fill('1');
    await dialog.getByRole('button', { name: 'Keep the data sheet' }).click();
    await expect(dialog).toBeHidden();
    await page.getByLabel('Find').fill('Journey one');
    await page.getByRole('button', { name: /^Halvorn Journey one/ }).click();
    await expect(page.getByRole('region', { name: 'Halvorn Journey one' })).toContainText(
      '1.73 in x 2.68 in, 1.30 in deep',
    );
    await expectAccessible(page);
  });

  await test.step('a list goes out as CSV and comes in again; a wrong cell is refused with its field', async () => {
    await page.goto(`${job}/catalogue/hubs`);
    const [csv] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save this list as CSV' }).click(),
    ]);
    const text = readFileSync(await csv.path(), 'utf8');
    const file = (content: string) => ({
      name: 'hubs.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(content),
    });
    await page
      .getByLabel('Catalogue file')
      .setInputFiles(file(text.replace('Halvorn Cairn', 'Halvorn Great Cairn')));
    await expect(page.getByText('0 added, 3 replaced.')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Halvorn Great Cairn/ })).toBeVisible();
    await page.getByLabel('Catalogue file').setInputFiles(file(text.replace('6900', 'cheap')));
    await expect(page.getByRole('dialog')).toContainText('/catalogue/hubs/0/price');
    await expect(page.getByRole('dialog')).toContainText('Nothing here was changed.');
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
    await expect(page.getByText('All sent')).toBeVisible();
  });
});
