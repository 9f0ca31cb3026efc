import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  testMatch: '*.journey.ts',
  outputDir: '../test-results',
  workers: 1,
  timeout: 90_000,
  expect: { timeout: 8000 },
  forbidOnly: true,
  reporter: process.env.INVENTARIO_JOURNEY_REPORT
    ? [['list'], ['json', { outputFile: process.env.INVENTARIO_JOURNEY_REPORT }]]
    : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'allow',
    colorScheme: 'light',
    locale: 'en-US',
    trace: 'retain-on-failure',
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] },
  },
});
