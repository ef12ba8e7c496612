import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests',
  globalSetup: './tests/laidout.ts',
  timeout: 600_000, // machines that do much else at once are slow, and stand still for a while
  expect: { timeout: 120_000 },
  fullyParallel: false,
  workers: 2,
  forbidOnly: !!process.env.CI,
  retries: 0,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    launchOptions: {
      executablePath: process.env.TAMIZ_CHROMIUM ?? '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
    trace: 'retain-on-failure',
  },
})
