import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: '.',
  testMatch: process.env.FOBBLE_SCREENSHOTS ? 'screenshots.ts' : process.env.FOBBLE_SPEED ? 'speed.ts' : '*.spec.ts',
  // For a busy machine: what is there is found at once.
  timeout: 180_000,
  expect: { timeout: 15_000 },
  workers: 2,
  globalSetup: './filled.ts',
  reporter: [['list'], ['./faults.ts']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    // Only the tests that are about it let the service worker in: it would answer in place of the server.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
})
