import { expect, type Locator, type Page } from '@playwright/test';

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
      await this.page
        .getByRole('group', { name: 'What it is' })
        .getByRole('button', { name: role, exact: true })
        .tap();
  }

  async openLine(name: 'Enclosure' | 'Position' | 'Readings and box state'): Promise<void> {
    const line = this.page.getByRole('button', { name: new RegExp(`^${name}`), expanded: false });
    if ((await line.count()) > 0) await line.first().click();
  }

  async enclosure(volume: string, depth: string): Promise<void> {
    await this.openLine('Enclosure');
    await this.page.getByLabel('Marked in the box, in³').fill(volume);
    await this.page.getByLabel('Depth inside').fill(depth);
  }

  async signal(dBm: string): Promise<void> {
    await this.openLine('Enclosure');
    await this.page.getByText('Rings, set-back, supports, plates, signal').click();
    await this.page.getByLabel('Signal at the box, minus').fill(dBm.replace('-', ''));
  }

  reckoning() {
    return this.page.getByRole('complementary', { name: 'Reckoning' });
  }

  /** What a touch of a conductor does. */
  async mode(mode: 'Test' | 'Label' | 'Move ends'): Promise<void> {
    await this.page.getByRole('radio', { name: mode, exact: true }).click();
  }

  async stands(how: string): Promise<void> {
    await this.openLine('Readings and box state');
    await this.pick('The box stands', how);
  }

  /** The bar at the bottom asks for this. */
  async asked(words: string | RegExp): Promise<void> {
    await expect(this.page.getByRole('status').filter({ hasText: words })).toBeVisible();
  }

  async hold(at: number): Promise<void> {
    const conductor = this.conductors().nth(at);
    if ((await conductor.getAttribute('aria-pressed')) === 'false') await conductor.click();
  }

  /** Switches the box's switch by what the drawing beside the readings shows. */
  async switchTo(state: 'on' | 'off'): Promise<void> {
    await this.page
      .getByRole('radiogroup', { name: 'Switch', exact: true })
      .getByRole('radio', { name: state, exact: true })
      .click();
  }

  /** A number on the pad of the conductor in hand. */
  async meter(instrument: 'volts, low Z' | 'ohms', digits: string): Promise<void> {
    await this.page.getByRole('radio', { name: instrument, exact: true }).click();
    await this.page.getByRole('button', { name: /^123/ }).click();
    await this.page.getByLabel(/^(Voltage|Resistance), /).fill(digits);
    await this.page.getByRole('button', { name: /^Record / }).click();
  }

  async standClear(): Promise<void> {
    await this.page.getByRole('button', { name: 'All clear: read it from here' }).click();
  }

  /** With the device out: a known source, every pair, the known source again. */
  async proveDead(volts: string, proof: Locator = this.reckoning()): Promise<void> {
    await proof.getByRole('button', { name: `${volts} V`, exact: true }).click();
    await proof.getByRole('button', { name: /under 5 V, \d+ V again$/ }).click();
    await expect(proof.getByText('Proved dead with the device out')).toBeVisible();
  }
}
