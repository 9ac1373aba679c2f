import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: '.',
  outputDir: 'results',
  snapshotPathTemplate: '{testDir}/pictures/{arg}{ext}',
  forbidOnly: !!process.env.CI,
  // A test that fails once and then passes is listed as flaky, to be mended; it does not stop a run of an hour.
  retries: 0,
  workers: 3, // on two processors: a test waits for a page as often as it works it
  fullyParallel: true,
  // Time enough on a slow machine: a test that hangs is stopped, none is judged by its speed.
  timeout: 600_000,
  expect: { timeout: 40_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    // Else no test could hold back a file on its way; one test lets it in.
    serviceWorkers: 'block',
    // To keep a trace of each test takes a third of the time: MALLOW_TRACE=1 asks for those of tests that fail.
    trace: process.env.MALLOW_TRACE ? 'retain-on-failure' : 'off',
    launchOptions: {
      executablePath: process.env.MALLOW_CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
