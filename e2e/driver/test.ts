import { rmSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { test as base, expect, type Page } from '@playwright/test';
import { freePort } from '../../scripts/database.js';
import { type RunningSystem, startSystem } from '../../scripts/system.js';
import { testFolder } from '../../scripts/test-folder.js';
import { House } from './house.js';
import { Survey } from './survey.js';

interface Fixtures {
  house: House;
  survey: Survey;
}

/**
 * Every journey runs on a whole system of its own worker: database, stand-in site, server, the built
 * application.
 */
export const test = base.extend<Fixtures, { system: RunningSystem }>({
  system: [
    async ({ browserName: _ }, use) => {
      const dataFolder = testFolder('journey');
      const system = await startSystem({
        dataFolder,
        host: '127.0.0.1',
        port: await freePort(),
        databasePort: await freePort(),
        sitePort: await freePort(),
        forTests: true,
      });
      await use(system);
      await system.stop();
      rmSync(dataFolder, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 1_800_000 },
  ],
  baseURL: async ({ system }, use) => use(system.url),
  house: async ({ page }, use) => use(new House(page)),
  survey: async ({ page }, use) => use(new Survey(page)),
});

/** No violation of the accessibility rules on the page as it stands. */
export async function expectAccessible(page: Page): Promise<void> {
  const result = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(
    result.violations.map(
      (violation) => `${violation.id}: ${violation.nodes.map((node) => node.target).join(' | ')}`,
    ),
  ).toEqual([]);
}

export { expect };
