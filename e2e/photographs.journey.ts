import { expect, expectAccessible, test } from './driver/test.js';

/** A small PNG of one colour. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAwAAAAICAIAAABChommAAAAEUlEQVR42mPIjvYiiBhGFQEACP1mAdGRi5kAAAAASUVORK5CYII=',
  'base64',
);
const view = '/jobs/quillon-point/box/radio-door/photos';

test('a photograph is taken without signal, pinned, sent later, and goes out and in with the job', async ({
  page,
  system,
}, info) => {
  const choose = (name: string, mimeType: string, buffer: Buffer) =>
    page.getByLabel('Photograph', { exact: true }).setInputFiles({ name, mimeType, buffer });
  await page.goto(view);
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);

  await test.step('what is no picture is refused with its name', async () => {
    await choose('wiring.pdf', 'application/pdf', Buffer.from('%PDF-1.7'));
    await expect(page.getByRole('alert')).toHaveText(
      '“wiring.pdf” was not taken: it is not a JPEG, PNG or WebP picture.',
    );
  });

  await test.step('without the server it is kept here, and still there after the page is opened anew', async () => {
    await system.killServer();
    await choose('before.png', 'image/png', PICTURE);
    await expect(page.getByText('kept here, not sent yet')).toBeVisible();
    await page.getByRole('button', { name: 'Set the pin where you touch the photograph' }).click();
    await expect(page.getByRole('complementary', { name: 'Reckoning' }).getByRole('listitem')).toHaveCount(1);
    await page.reload();
    await expect(page.getByText('kept here, not sent yet')).toBeVisible();
    await expectAccessible(page);
  });

  await test.step('it is sent when the server is back', async () => {
    await system.startServer();
    await expect(page.getByText('kept here, not sent yet')).toBeHidden();
    await page.reload();
    const thumb = page.getByRole('img', { name: /^Radio room, door, before, .*1 pins$/ });
    await expect(thumb).toBeVisible();
    await expect.poll(() => thumb.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(320);
  });

  await test.step('the job goes out with its photographs and comes back as a copy', async () => {
    await page.goto('/jobs/quillon-point');
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'With photographs' }).click();
    const file = info.outputPath('quillon-point.zip');
    await (await download).saveAs(file);
    await page.goto('/');
    await page.getByLabel('Job file').setInputFiles(file);
    await page.getByRole('dialog').getByRole('button', { name: 'Import it as a copy' }).click();
    await expect(page.getByText('is in as quillon-point-copy')).toBeVisible();
    await page.goto('/jobs/quillon-point-copy/box/radio-door/photos');
    await expect(page.getByRole('img', { name: /^Radio room, door, before/ })).toBeVisible();
  });
});
