import { expect, type Page } from '@playwright/test';

/** One box, surveyed as it would be on site: by keyboard at the desk, by thumb on the phone. */
export class Survey {
  constructor(private readonly page: Page) {}

  async addBox(room: string): Promise<void> {
    await this.page.getByRole('button', { name: `Add a box to ${room}`, exact: true }).click();
    await expect(this.page.getByLabel('Box', { exact: true })).toBeVisible();
  }

  async pick(label: string, option: string): Promise<void> {
    await this.page.getByRole('button', { name: new RegExp(`^${label}`) }).click();
    await this.page.getByRole('option', { name: option }).click();
    await this.page.keyboard.press('Escape');
  }

  async startFrom(preset: string): Promise<void> {
    await this.page.getByRole('button', { name: new RegExp(`^${preset}`) }).click();
    await expect(this.conductors().first()).toBeVisible();
  }

  conductors() {
    return this.page.locator('[data-conductor]');
  }

  /** With the first conductor in hand: one key each, the next untold one comes into the hand by itself. */
  async labelByKeys(keys: readonly string[]): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(key);
  }

  async labelByThumb(roles: readonly string[]): Promise<void> {
    for (const role of roles)
      await this.page.getByRole('group', { name: 'What it is' }).getByRole('button', { name: role, exact: true }).tap();
  }

  async enclosure(volume: string, depth: string): Promise<void> {
    await this.page.getByLabel('Marked in the box, in³').fill(volume);
    await this.page.getByLabel('Depth inside').fill(depth);
  }

  reckoning() {
    return this.page.getByRole('complementary', { name: 'Reckoning' });
  }
}
