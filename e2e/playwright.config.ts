import path from 'node:path';
import { defineConfig } from '@playwright/test';
import { CHROMIUM_WORDS, executablePath } from './chromium';
import { DATA_OF_DEMO, LETTER_PORT, MAIL_PORT, SEEDED_PORT, SMALL_WEB_PORT } from './ports';

const root = path.resolve(import.meta.dirname, '..');

export default defineConfig({
  testDir: '.',
  globalSetup: './keep-demo.ts',
  outputDir: path.join(root, 'test-results'),
  timeout: 180_000,
  expect: { timeout: 20_000 },
  workers: 2,
  // Two workers on two cores with their servers beside them: what fails once is tried once more, and named as flaky.
  retries: 1,
  forbidOnly: Boolean(process.env.CI),
  reporter: [['list'], ['json', { outputFile: path.join(root, 'test-results/e2e.json') }]],
  use: {
    ...(executablePath
      ? {
          launchOptions: {
            executablePath,
            args: CHROMIUM_WORDS,
          },
        }
      : {}),
    // A trace of every test costs a third of the time; the second try of one that failed has it.
    trace: 'on-first-retry',
    actionTimeout: 60_000,
  },
  projects: [
    { name: 'service', testDir: './service', testIgnore: '**/siege.spec.ts' },
    { name: 'extension', testDir: './extension' },
    { name: 'phone', testDir: './stories', use: { viewport: { width: 390, height: 844 }, hasTouch: true } },
    {
      name: 'wide',
      testDir: './stories',
      // What is about devices, the network or the server, and not about the layout, is told once.
      grepInvert: /@any-width/,
      use: { viewport: { width: 1280, height: 800 } },
    },
    {
      // It measures times and memory, so it has the machine for itself.
      name: 'siege',
      testDir: './service',
      testMatch: '**/siege.spec.ts',
      dependencies: ['service', 'extension', 'phone', 'wide'],
    },
  ],
  webServer: [
    {
      // The demo as its users start it: the one command is under test here too.
      command: 'node scripts/demo.mjs --fresh',
      cwd: root,
      env: {
        PORT: String(SEEDED_PORT),
        SMALL_WEB_PORT: String(SMALL_WEB_PORT),
        MAIL_PORT: String(MAIL_PORT),
        LETTER_PORT: String(LETTER_PORT),
        DORVEL_DATA: DATA_OF_DEMO,
        DORVEL_DEMO_PAST: '0',
      },
      wait: { stdout: /demo is ready/ },
      timeout: 300_000,
    },
  ],
});
