import { expect, type Page } from '@playwright/test';

/** Jobs, rooms, circuits and loads, as an installer sets them up. */
export class House {
  constructor(private readonly page: Page) {}

  async newJob(name: string): Promise<void> {
    await this.page.goto('/');
    await this.page.getByRole('button', { name: 'New job' }).click();
    await this.page.getByLabel('Name of the job').fill(name);
    await this.page.getByRole('button', { name: 'Make the job' }).click();
    await expect(this.page.getByRole('heading', { name, level: 1 })).toBeVisible();
  }

  async addRoom(name: string): Promise<void> {
    await this.page.getByRole('button', { name: 'Add a room' }).click();
    await this.page.getByLabel('Name').fill(name);
    await this.page.getByRole('button', { name: 'Add the room' }).click();
    await expect(this.row('Rooms', name)).toBeVisible();
  }

  async addCircuit(breaker: string, label: string): Promise<void> {
    await this.page.getByRole('button', { name: 'Add a circuit' }).click();
    await this.page.getByLabel('Breaker', { exact: true }).fill(breaker);
    await this.page.getByLabel('Label, as it stands in the panel').fill(label);
    await this.page.getByRole('button', { name: 'Add the circuit' }).click();
    await expect(this.row('Circuits', label)).toBeVisible();
  }

  async addLoad(name: string, count: number, watts: number): Promise<void> {
    await this.page.getByRole('button', { name: 'Add a load' }).click();
    await this.page.getByLabel('Name').fill(name);
    await this.page.getByLabel('How many').fill(String(count));
    await this.page.getByLabel('Each').fill(String(watts));
    await this.page.getByRole('radio', { name: 'yes, marked so' }).click();
    await this.page.getByRole('button', { name: 'Add the load' }).click();
    await expect(this.row('Loads', name)).toBeVisible();
  }

  row(list: 'Rooms' | 'Circuits' | 'Loads', name: string) {
    return this.page.getByRole('region', { name: list }).getByRole('listitem').filter({ hasText: name });
  }

  async takeOut(name: string): Promise<void> {
    await this.page.getByRole('button', { name: `Delete ${name}` }).click();
  }

  async undo(): Promise<void> {
    await this.page
      .getByRole('button', { name: /^Undo: / })
      .first()
      .click();
  }

  /** Everything recorded has reached the server. */
  async sent(): Promise<void> {
    await expect(this.page.getByText('All sent')).toBeAttached();
  }

  async go(view: 'Board' | 'House' | 'Panel' | 'Pair' | 'Names' | 'Rules'): Promise<void> {
    await this.page
      .getByRole('navigation', { name: 'Phases' })
      .getByRole('link', { name: view, exact: true })
      .click();
  }

  /** Records a switching on the power bar. */
  async switched(breaker: string, state: 'on' | 'off'): Promise<void> {
    const bar = this.page.getByRole('region', { name: 'Power' });
    const circuit = bar.getByRole('button', { name: new RegExp(`breaker ${breaker},`) });
    // What feeds nothing here and is not on is folded away.
    if ((await circuit.count()) === 0) await bar.getByRole('button', { expanded: false }).last().click();
    await circuit.click();
    await this.page.getByRole('button', { name: `Switched ${state}`, exact: true }).click();
    await expect(bar).toContainText(new RegExp(`${breaker} [^:]*: ${state}`));
  }
}
