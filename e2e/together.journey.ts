import { expect, test } from './driver/test.js';

test('two browsers on one job see each other; a clash is a question; what is recorded without the server is sent later', async ({
  browser,
  system,
}) => {
  const [first, second] = [
    await browser.newContext({ baseURL: system.url }),
    await browser.newContext({ baseURL: system.url }),
  ];
  const [phone, laptop] = [await first.newPage(), await second.newPage()];
  const address = '/jobs/quillon-point/box/radio-door';
  await Promise.all([phone.goto(address), laptop.goto(address)]);
  const nameOn = (page: typeof phone) => page.getByLabel('Box', { exact: true });

  await test.step('an edit shows up on the other side by itself', async () => {
    await nameOn(phone).fill('Radio room, inner door');
    await expect(nameOn(laptop)).toHaveValue('Radio room, inner door');
  });

  await test.step('without the server everything goes on, and says so', async () => {
    // The first visit brings everything that is needed without the server; it has to be whole before the
    // server goes.
    await expect.poll(() => phone.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
    await system.killServer();
    await nameOn(phone).fill('Radio room, oak door');
    await expect(phone.getByText('1 not sent yet')).toBeVisible();
    await phone.getByRole('button', { name: /^Undo: / }).click();
    await nameOn(phone).fill('Radio room, oak door');
    // The page is opened anew while the server is away: the edit is still there.
    await phone.reload();
    await expect(nameOn(phone)).toHaveValue('Radio room, oak door');
  });

  await test.step('it is sent when the server is back', async () => {
    await system.startServer();
    await expect(phone.getByText('All sent')).toBeVisible();
    await expect(nameOn(laptop)).toHaveValue('Radio room, oak door');
  });

  await test.step('the same field changed on both sides becomes a question, and mine can stand', async () => {
    await system.killServer();
    await nameOn(phone).fill('By the stairs');
    await nameOn(laptop).fill('By the mast');
    await expect(phone.getByText(/not sent yet/)).toBeVisible();
    await expect(laptop.getByText(/not sent yet/)).toBeVisible();
    await system.startServer();
    await expect
      .poll(
        async () =>
          (await phone.getByRole('button', { name: '1 conflict' }).count()) +
          (await laptop.getByRole('button', { name: '1 conflict' }).count()),
      )
      .toBe(1);
    const asks = (await phone.getByRole('button', { name: '1 conflict' }).count()) === 1 ? phone : laptop;
    const mine = asks === phone ? 'By the stairs' : 'By the mast';
    await asks.getByRole('button', { name: '1 conflict' }).click();
    await expect(asks.getByRole('dialog')).toContainText('Theirs');
    await asks.getByRole('button', { name: 'Use mine' }).click();
    // The line of the one that did not ask may only just be coming back.
    await expect(nameOn(phone)).toHaveValue(mine);
    await expect(nameOn(laptop)).toHaveValue(mine);
  });
  await first.close();
  await second.close();
});

test('the first screen costs less than 250 kB of compressed script', async ({ page }) => {
  // Each script's size is asked of its own answer and waited for: counting as answers come in races with the
  // heading.
  const sizes: Promise<number>[] = [];
  page.on('response', (response) => {
    if (response.request().resourceType() === 'script')
      sizes.push(response.headerValue('content-length').then(Number));
  });
  await page.goto('/', { waitUntil: 'networkidle' });
  await expect(page.getByRole('heading', { name: 'Quillon Point light' }).first()).toBeVisible();
  const bytes = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThan(250_000);
});
