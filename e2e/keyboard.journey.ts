import type { Page } from '@playwright/test';
import { expect, expectAccessible, test } from './driver/test.js';

/** A hand on the keyboard alone: the Tab key until what is meant has the focus. */
class Keys {
  constructor(private readonly page: Page) {}

  /** @returns stops it took to come there */
  async to(name: string | RegExp, most = 120): Promise<number> {
    for (let stops = 1; stops <= most; stops++) {
      await this.page.keyboard.press('Tab');
      if (await this.isOn(name)) return stops;
    }
    throw new Error(`the keyboard does not come to ${String(name)} in ${most} stops`);
  }

  async enter(name: string | RegExp): Promise<void> {
    await this.to(name);
    await this.page.keyboard.press('Enter');
  }

  async type(name: string | RegExp, text: string): Promise<void> {
    await this.to(name);
    await this.page.keyboard.press('ControlOrMeta+a');
    await this.page.keyboard.type(text);
  }

  /** What has the focus, by the name read aloud. */
  private async isOn(name: string | RegExp): Promise<boolean> {
    const said = await this.page.evaluate(() => {
      const element = document.activeElement;
      if (!element) return '';
      const labelled = (element as HTMLInputElement).labels?.[0]?.textContent;
      const by = element
        .getAttribute('aria-labelledby')
        ?.split(' ')
        .map((id) => document.getElementById(id)?.textContent ?? '')
        .join(' ');
      return (element.getAttribute('aria-label') ?? by ?? labelled ?? element.textContent ?? '').trim();
    });
    return typeof name === 'string' ? said === name : name.test(said);
  }
}

test('from a new job to a paired device with the keyboard alone', async ({ page }) => {
  const keys = new Keys(page);
  const { keyboard } = page;
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'New job' })).toBeVisible();

  await test.step('a job, a room, a breaker, a load', async () => {
    await keys.enter('New job');
    await expect(page.getByRole('dialog')).toContainText('Name of the job');
    await page.keyboard.type('Keel house');
    await keys.enter('Make the job');
    await expect(page.getByRole('heading', { name: 'Keel house', level: 1 })).toBeVisible();
    const add = async (button: string, fields: [string | RegExp, string][], save: string) => {
      await keys.enter(button);
      await expect(page.getByRole('button', { name: save })).toBeVisible();
      for (const [field, text] of fields) {
        const input = page.getByLabel(field, { exact: true });
        if (!(await input.evaluate((element) => element === document.activeElement))) await keys.to(field);
        await keyboard.press('ControlOrMeta+a');
        await keyboard.type(text);
      }
      await keyboard.press('Enter');
      await expect(page.getByRole('dialog')).toHaveCount(0);
    };
    await add('Add a room', [['Name', 'Hall']], 'Add the room');
    await add(
      'Add a circuit',
      [
        ['Breaker', '4'],
        ['Label, as it stands in the panel', 'Hall lights'],
      ],
      'Add the circuit',
    );
    await add('Add a load', [['Name', 'Hall ceiling']], 'Add the load');
  });

  await test.step('a box, its conductors within ten stops, labelled by single keys', async () => {
    await keys.enter('Add a box to Hall');
    await expect(page.getByLabel('Box', { exact: true })).toBeVisible();
    await keys.enter(/^Power at the switchTwo cables/);
    await expect(page.locator('[data-conductor]').first()).toBeVisible();
    await keys.enter(/^Hall ceiling/);
    await keys.enter('3 bars');
    await page.reload();
    await expect(page.locator('[data-conductor]').first()).toBeVisible();
    await keyboard.press('Tab');
    await keyboard.press('Enter');
    expect(await keys.to(/^Black, cable A, first from left/, 10)).toBeLessThanOrEqual(9);
    await keyboard.press('Enter');
    await page.getByRole('radio', { name: 'Label', exact: true }).focus();
    await keyboard.press('Space');
    for (const key of ['l', 's']) await keyboard.press(key);
    await expect(page.getByText('Volume and depth of the box')).toBeVisible();
    await keys.enter(/^18\.00 in³marked/);
    await expect(page.getByText('Depth of the box')).toBeVisible();
    await keys.enter(/^2\.76 indeep/);
    await keys.enter('Accept these marks');
    await expect(page.getByRole('link', { name: 'Choose a device' })).toBeVisible();
    await expectAccessible(page);
  });

  await test.step('a device is chosen, mounted, and joined', async () => {
    await keys.enter('Choose a device');
    const fits = page.getByRole('listitem', { name: 'Pellworth Plain 15', exact: true });
    await expect(fits).toContainText('Fits');
    await fits.getByRole('button', { name: 'Choose', exact: true }).focus();
    await keyboard.press('Enter');
    await expect(fits.getByRole('button', { name: 'Chosen' })).toBeVisible();
    await page
      .getByRole('main')
      .getByRole('link', { name: /^Hall, box/ })
      .focus();
    await keyboard.press('Enter');
    await keys.enter('Record: wired and mounted');
    await expect(page.getByRole('link', { name: 'Pair it' })).toBeVisible();
    await keys.enter(/^4 Hall lights/);
    await keys.enter('Switched on');
    await keys.enter('Pair it');
    await keys.enter('It joined');
    await expect(page.getByRole('list', { name: 'Its story' })).toContainText('joined');
    await expectAccessible(page);
  });
});
