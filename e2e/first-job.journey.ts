import { readFileSync } from 'node:fs';
import { Pairing } from './driver/pairing.js';
import { expect, expectAccessible, test } from './driver/test.js';

test('from a new job to a paired device, a board, a file out and in again', async ({
  page,
  house,
  survey,
}) => {
  await house.newJob('Sloop cottage');
  await house.addRoom('Hall');
  await house.addRoom('Scullery');
  await house.addCircuit('4', 'Lights below');
  await house.addLoad('Hall ceiling', 4, 9);
  await expectAccessible(page);

  await test.step('edit, delete, undo', async () => {
    await house
      .row('Rooms', 'Scullery')
      .getByRole('button', { name: /^Scullery/ })
      .click();
    await page.getByLabel('Name').fill('Back kitchen');
    await page.getByRole('button', { name: 'Done' }).click();
    await expect(house.row('Rooms', 'Back kitchen')).toBeVisible();
    await house.takeOut('Hall ceiling');
    await expect(house.row('Loads', 'Hall ceiling')).toHaveCount(0);
    await house.undo();
    await expect(house.row('Loads', 'Hall ceiling')).toBeVisible();
  });

  await test.step('survey a box by keyboard, figures following each key', async () => {
    await survey.addBox('Hall');
    await page.getByLabel('Box', { exact: true }).fill('Hall, front door');
    // There is one breaker: it is filled in.
    await expect(page.getByRole('button', { name: /^Fed by/ })).toContainText('4 Lights below');
    await survey.enclosure('18', '2.75');
    await survey.startFrom('Power at the switch Two');
    await expect(survey.conductors()).toHaveCount(6);
    await survey.openLine('Enclosure');
    await expect(survey.reckoning()).toContainText('14.00 in³ used of 18.00 in³, 4.00 in³ left');
    await page.getByLabel('Marked in the box, in³').fill('13.5');
    await expect(survey.reckoning()).toContainText('0.50 in³ too much');
    await page.getByLabel('Marked in the box, in³').fill('18');
    await expect(survey.reckoning()).toContainText('Box fill');
    await expect(survey.reckoning()).toContainText('314.16(B)(1)');
    await page.getByLabel('Depth inside').fill('two');
    await expect(page.getByText('This is not a number.')).toBeVisible();
    await page.getByLabel('Depth inside').fill('2.75');
    await survey.openLine('Position');
    await survey.pick('Controls', 'Hall ceiling');
    await survey.signal('-58');
    await survey.mode('Label');
    await survey.conductors().first().focus();
    await page.keyboard.press('Enter');
    await survey.labelByKeys(['l', 's']);
    await page.getByRole('button', { name: 'Accept these marks' }).click();
    await expect(survey.conductors().nth(0)).toHaveAccessibleName(
      /^Black, feed A.* on terminal a of position 1: line$/,
    );
    await expect(survey.conductors().nth(3)).toHaveAccessibleName(
      /^Black, load B.* on terminal b of position 1: load$/,
    );
    await survey.asked('Choose a device');
    await expectAccessible(page);
  });

  await test.step('choose a device that fits; the others say what stops them', async () => {
    await page.getByRole('link', { name: 'Choose a device' }).click();
    await expect(page.getByText(/^Of \d+ devices \d+ fit,/)).toBeVisible();
    await page.getByRole('radio', { name: /^All, with what stops them/ }).click();
    const glass = page.getByRole('listitem').filter({ hasText: 'Zinnet' }).first();
    await expect(glass).toContainText('It is not made for United States.');
    await expect(glass).toContainText('Breaker 4 gives 120 V');
    await page.getByRole('radio', { name: /^Possible/ }).click();
    const fits = page.getByRole('listitem', { name: 'Pellworth Plain 15' });
    await expect(fits).toContainText('Fits');
    await fits.getByRole('button', { name: 'Choose' }).click();
    await expect(fits.getByRole('button', { name: 'Chosen' })).toBeVisible();
    await expect(survey.reckoning()).toContainText('Box fill, as planned');
    await expectAccessible(page);
    await page.getByRole('main').getByRole('link', { name: 'Hall, front door' }).click();
    await page.getByRole('button', { name: 'Record: wired and mounted' }).click();
  });

  await test.step('pair it over the house: the wrong band is put right first, every try is kept', async () => {
    await house.switched('4', 'on');
    await house.go('Pair');
    const pairing = new Pairing(page);
    await pairing.way('over the house');
    await page.getByRole('radio', { name: '5 GHz', exact: true }).click();
    await expect(pairing.next).toHaveText('Put the phone on 2.4 GHz');
    await page.getByRole('radio', { name: '2.4 GHz', exact: true }).click();
    await pairing.joinOverTheHouse();
    await expect(page.getByRole('list', { name: 'Its story' })).toContainText('joined after');
    await expectAccessible(page);
  });

  const file = await test.step('board, CSV and job file', async () => {
    await house.go('Board');
    const hall = page.getByRole('row', { name: /^Hall/ });
    await expect(hall.getByRole('cell', { name: '1/1' })).toHaveCount(5);
    await expectAccessible(page);
    await house.sent();
    const csv = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Board as CSV' }).click();
    const text = readFileSync(await (await csv).path(), 'utf8');
    expect(text).toContain(
      'room,box,circuits,gangs,surveyed,identified,chosen,wired,paired,devices,blockers',
    );
    expect(text).toContain('Hall,"Hall, front door",4,1,done,done,done,done,done,1: Pellworth Plain 15,');
    const job = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Job file' }).click();
    return (await job).path();
  });

  await test.step('the file comes in again as a copy without loss; a broken one is refused field by field', async () => {
    await page.goto('/');
    await page.getByLabel('Job file').setInputFiles({
      name: 'sloop.inventario.json',
      mimeType: 'application/json',
      buffer: readFileSync(file),
    });
    await expect(page.getByRole('heading', { name: 'This job is here already' })).toBeVisible();
    await page.getByRole('button', { name: 'Import it as a copy' }).click();
    await expect(page.getByRole('heading', { name: 'Sloop cottage (copy)' })).toBeVisible();
    const out = JSON.parse(readFileSync(file, 'utf8'));
    const again = await (await page.request.get(`/api/jobs/${out.id}-copy`)).json();
    expect({ ...again, id: out.id, name: out.name }).toEqual(out);
    out.boxes[0].enclosure.gangs = 'two';
    await page.getByLabel('Job file').setInputFiles({
      name: 'broken.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify({ ...out, id: 'broken' })),
    });
    await expect(page.getByRole('dialog')).toContainText('/boxes/0/enclosure/gangs must be a number');
    await page.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: 'More for Sloop cottage (copy)' }).click();
    await page.getByRole('menuitem', { name: 'Delete this job' }).click();
    await expect(page.getByRole('heading', { name: 'Sloop cottage (copy)' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Put it back' }).click();
    await expect(page.getByRole('heading', { name: 'Sloop cottage (copy)' })).toBeVisible();
    await expectAccessible(page);
  });
});
