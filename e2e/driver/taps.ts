import { expect, type Locator, type Page } from '@playwright/test';

/**
 * A thumb that is counted: each tap, and each time something had to be scrolled to before it could be tapped.
 */
export class Taps {
  taps = 0;
  scrolls = 0;
  readonly said: string[] = [];

  constructor(private readonly page: Page) {}

  async tap(target: Locator): Promise<void> {
    await expect(target).toBeEnabled();
    if (!(await this.isInSight(target))) {
      this.scrolls += 1;
      await target.scrollIntoViewIfNeeded();
    }
    this.taps += 1;
    this.said.push(`${this.taps} ${await this.nameOf(target)}`);
    await target.tap();
  }

  /** Whole on the screen, and nothing over its middle. */
  private isInSight(target: Locator): Promise<boolean> {
    return target.evaluate((element) => {
      const { left, top, right, bottom } = element.getBoundingClientRect();
      if (left < -1 || top < -1 || right > innerWidth + 1 || bottom > innerHeight + 1) return false;
      const hit = document.elementFromPoint((left + right) / 2, (top + bottom) / 2);
      return hit !== null && (element.contains(hit) || hit.contains(element));
    });
  }

  private nameOf(target: Locator): Promise<string | null> {
    return target.evaluate((element) => element.getAttribute('aria-label') ?? element.textContent);
  }

  /** The bar at the bottom asks for this now. */
  async asked(words: string | RegExp): Promise<void> {
    await expect(this.page.getByRole('status').filter({ hasText: words })).toBeVisible();
  }

  key(name: string | RegExp): Locator {
    return this.page.getByRole('button', { name, exact: typeof name === 'string' }).first();
  }

  async press(name: string | RegExp): Promise<void> {
    await this.tap(this.key(name));
  }
}
