import { expect, type Page } from '@playwright/test';
import { House } from './house.js';

/** A box put together on the Wire screen, by thumb. */
export class Wire {
  /** Titles of the steps in the order they were done. */
  readonly done: string[] = [];
  private readonly house: House;

  constructor(
    private readonly page: Page,
    private readonly job: string,
    /** Breakers that feed the box. */
    private readonly breakers: readonly string[],
  ) {
    this.house = new House(page);
  }

  async open(boxId: string): Promise<void> {
    await this.page.goto(`${this.job}/box/${boxId}/wire`);
    await expect(this.title).toBeVisible();
  }

  /** What the step in hand is called. */
  get title() {
    return this.page
      .getByText(/^Step \d+ of \d+/)
      .locator('xpath=..')
      .locator('strong');
  }

  private get go() {
    return this.page.getByRole('button', { name: /^Done(:|$)/ });
  }

  async prove(): Promise<void> {
    for (const breaker of this.breakers) await this.house.switched(breaker, 'off');
    const source = this.page.getByRole('button', { name: '120 V', exact: true });
    const all = this.page.getByRole('button', { name: /under 5 V/ });
    // At the face, then with the device out; in each stage the source is asked where it was not read lately.
    const before = await this.title.textContent();
    for (let turn = 0; turn < 300 && (await this.title.textContent()) === before; turn++) {
      // A key that has just gone, because the step has, is no fault: the title is looked at again.
      const key = (await source.isVisible()) ? source : all;
      if (await key.isVisible()) await key.tap({ timeout: 5000 }).catch(() => {});
      await this.page.waitForTimeout(1000);
    }
  }

  /** Every step until the box is closed. */
  async toTheEnd(): Promise<void> {
    const bar = this.page.getByText(/^Step \d+ of \d+/);
    for (let turn = 0; turn < 80; turn++) {
      const title = (await this.title.textContent()) ?? '';
      if (/^(Prove it dead|Off, and proved)/.test(title)) await this.prove();
      else {
        if (/^Try it/.test(title))
          for (const breaker of this.breakers) await this.house.switched(breaker, 'on');
        await expect(this.go).toBeEnabled();
        await this.go.tap();
      }
      this.done.push(title);
      if (/^Plate on/.test(title)) break;
      await expect(this.title).not.toHaveText(title);
    }
    await expect(bar).toBeHidden();
  }
}
