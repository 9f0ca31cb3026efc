import { expect, type Page } from '@playwright/test';

/** The Install screen, worked through by thumb: one key at a time, whatever it asks for. */
export class Run {
  /** What the bar asked for, in its order, each once in a row. */
  readonly asked: string[] = [];

  constructor(
    private readonly page: Page,
    private readonly job: string,
  ) {}

  async open(): Promise<void> {
    await this.page.goto(`${this.job}/install`);
    await expect(this.page.getByRole('main')).toBeVisible();
  }

  /** Everything that can be asked for, the first that is there. */
  private get keys() {
    const { page } = this;
    return [
      page.getByRole('button', { name: 'Begin this batch' }),
      page.getByRole('button', { name: /^Record: switched (on|off)$/ }),
      page.getByRole('button', { name: /^Take .* in hand$/ }),
      page.getByRole('button', { name: '120 V', exact: true }),
      page.getByRole('button', { name: /under 5 V/ }),
      page.getByRole('button', { name: /^Done(:|$)/ }),
      page.getByRole('button', { name: 'All of it works' }),
    ];
  }

  /** Touches what is asked for until something is in sight. */
  async until(there: () => Promise<boolean>): Promise<void> {
    for (let turn = 0; turn < 1500; turn++) {
      if (await there()) return;
      await this.once();
    }
    throw new Error(`The work does not come to an end; last: ${this.asked.slice(-4).join(', ')}`);
  }

  private async once(): Promise<void> {
    for (const key of this.keys) {
      const first = key.first();
      if (!(await first.isVisible().catch(() => false)) || !(await first.isEnabled().catch(() => false)))
        continue;
      const name = (await first.textContent({ timeout: 2000 }).catch(() => '')) ?? '';
      // A key that has just gone, because the step has, is no fault: what is there is looked at again.
      await first.tap({ timeout: 5000 }).catch(() => {});
      if (this.asked.at(-1) !== name) this.asked.push(name);
      await this.page.waitForTimeout(350);
      return;
    }
    await this.page.waitForTimeout(300);
  }
}
