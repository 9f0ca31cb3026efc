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

  async enclosure(volume: string, depth: string): Promise<void> {
    await this.page.getByLabel('Marked in the box, in³').fill(volume);
    await this.page.getByLabel('Depth inside').fill(depth);
  }

  async signal(dBm: string): Promise<void> {
    await this.page.getByText('Rings, set-back, supports, plate, signal').click();
    await this.page.getByLabel('Signal at the box').fill(dBm);
  }

  reckoning() {
    return this.page.getByRole('complementary', { name: 'Reckoning' });
  }

  /** From saying what conductors are to reading them, and back. */
  async mode(mode: 'read it' | 'say what it is'): Promise<void> {
    await this.page.getByRole('radio', { name: mode }).click();
  }

  async stands(how: string): Promise<void> {
    await this.pick('The box stands', how);
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

  /** A number on the pad, key by key. */
  async meter(instrument: 'volts, low Z' | 'ohms', digits: string): Promise<void> {
    await this.page.getByRole('radio', { name: instrument, exact: true }).click();
    await this.page.getByLabel(/^(Voltage|Resistance), /).fill(digits);
    await this.page.getByRole('button', { name: /^Record / }).click();
  }

  async standClear(): Promise<void> {
    const steps = this.page.getByRole('group', { name: /hands off/ }).getByRole('checkbox');
    for (const step of await steps.all()) await step.check();
    await this.page.getByRole('button', { name: 'Done: read it from here' }).click();
  }

  /** Both stages: a known source, every pair, the known source again. */
  async proveDead(volts: string, proof: Locator = this.reckoning()): Promise<void> {
    for (const done of ['Proved dead at the face', 'Proved dead, device out']) {
      await proof.getByLabel('1. Tester on a known source').fill(volts);
      await proof.getByRole('button', { name: /^All \d+ under 5 V$/ }).click();
      await proof.getByLabel('3. The known source again').fill(volts);
      await proof.getByRole('button', { name: done }).click();
    }
  }
}
