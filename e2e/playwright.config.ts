import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  testMatch: '*.journey.ts',
  outputDir: '../test-results',
  workers: 1,
  // No journey is timed either: these only end one that hangs, on a machine ten times slower too.
  timeout: 3_600_000,
  expect: { timeout: 120_000 },
  forbidOnly: true,
  reporter: process.env.INVENTARIO_JOURNEY_REPORT
    ? [['list'], ['json', { outputFile: process.env.INVENTARIO_JOURNEY_REPORT }]]
    : [['list']],
  use: {
    actionTimeout: 300_000,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'allow',
    colorScheme: 'light',
    locale: 'en-US',
    trace: 'retain-on-failure',
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] },
  },
});
