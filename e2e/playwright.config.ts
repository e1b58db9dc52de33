import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

// The configuration is read by every worker; only the first reader chooses port and folder.
process.env.CADERNO_E2E_PORT ??= String(20_000 + Math.floor(Math.random() * 20_000));
process.env.STORYBOARD_PORT ??= String(40_000 + Math.floor(Math.random() * 10_000));
process.env.MAIL_PORT ??= String(50_000 + Math.floor(Math.random() * 5_000));
process.env.MAIL_PAGE_PORT ??= String(55_000 + Math.floor(Math.random() * 5_000));
process.env.CADERNO_E2E_DATA ??= mkdtempSync(join(tmpdir(), 'caderno-e2e-'));
const baseURL = `http://127.0.0.1:${process.env.CADERNO_E2E_PORT}`;

export default defineConfig({
  testDir: './tests',
  // Two halves may run at once, and each clears its own.
  outputDir: `../${process.env.CADERNO_E2E_RESULTS ?? 'test-results/all'}`,
  // Only ends what hangs: the longest take most of a minute on a machine that does nothing else, two shards share one, and others may be at work on it too.
  timeout: 300_000,
  // One browser a server: the tests of one run follow each other on the same demo.
  workers: 1,
  // As above: a machine that is busy with other things has stood still for longer than twenty seconds.
  expect: { timeout: 60_000 },
  fullyParallel: false,
  reporter: 'line',
  use: {
    baseURL,
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    // A trace of every action costs a third of the time; whoever looks into a failure asks for one: --trace on.
    trace: 'off',
    screenshot: 'only-on-failure',
    // Without a window nothing is composed for a screen: two and a half times as fast as the whole browser.
    launchOptions: { executablePath: '/usr/bin/chromium-headless-shell', args: ['--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost'] },
  },
  webServer: {
    command: 'node ../scripts/start.mjs --fresh',
    url: `${baseURL}/healthz`,
    env: { PORT: process.env.CADERNO_E2E_PORT, CADERNO_DATA: process.env.CADERNO_E2E_DATA, STORYBOARD_PORT: process.env.STORYBOARD_PORT, MAIL_PORT: process.env.MAIL_PORT, MAIL_PAGE_PORT: process.env.MAIL_PAGE_PORT, CADERNO_THROW_AWAY: '1' },
    timeout: 180_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
  },
});
