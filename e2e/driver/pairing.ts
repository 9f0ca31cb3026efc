import { expect, type Page } from '@playwright/test';

/** The Pair screen, by the next thing it proposes. */
export class Pairing {
  constructor(private readonly page: Page) {}

  async open(job: string, place?: string): Promise<void> {
    await this.page.goto(`${job}/pair${place ? `?at=${place}` : ''}`);
    await expect(this.next).toBeVisible();
  }

  /** What is proposed for the device in the hand. */
  get next() {
    return this.page
      .getByText(/, next$/)
      .locator('xpath=..')
      .locator('strong');
  }

  get hand() {
    return this.page.getByRole('region', { name: 'In the hand' });
  }

  async way(adapter: 'by hand' | 'over the house'): Promise<void> {
    await this.page.getByRole('radio', { name: adapter }).click();
  }

  async press(name: string | RegExp): Promise<void> {
    await this.page.getByRole('main').locator('xpath=..').getByRole('button', { name }).first().click();
  }

  /** Does what is proposed, answering every look by eye that all is well, until this is proposed. */
  async until(wanted: string | RegExp): Promise<void> {
    for (let turn = 0; turn < 30; turn += 1) {
      const words = (await this.next.textContent()) ?? '';
      if (typeof wanted === 'string' ? words === wanted : wanted.test(words)) return;
      await this.goOn(words);
      // Another thing is proposed, or the same one of another channel.
      await this.page.waitForTimeout(300);
    }
    await expect(this.next).toHaveText(wanted);
  }

  /** The dark key, whatever it is called now. */
  private async goOn(words: string): Promise<void> {
    const dark = this.page.locator('button.bg-strong:visible').last();
    if (
      /^Join it$/.test(words) &&
      (await this.page
        .getByRole('status')
        .filter({ has: this.page.locator('progress') })
        .isVisible())
    )
      return;
    await dark.click({ timeout: 10_000 }).catch(() => {});
  }

  async joinOverTheHouse(): Promise<void> {
    await this.until(/^(Update it|Its update is stuck)/);
  }

  /** From joined to done, with the names that are proposed. */
  async toTheEnd(): Promise<void> {
    await this.until('Done: it works in every way');
  }
}
