import { defineConfig } from '@playwright/test';
import { SESSION } from './e2e/server';

const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';

export default defineConfig({
  testDir: 'e2e',
  // Files side by side: each has a server and a database of its own.
  workers: 2,
  // A busy machine is not a fault of the product: what takes a second may take ten on a shared one.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 30_000,
    // The session that `startLedrin` begins.
    storageState: {
      cookies: [
        {
          name: 'ledrin',
          value: SESSION,
          domain: '127.0.0.1',
          path: '/',
          expires: -1,
          httpOnly: true,
          secure: false,
          sameSite: 'Lax',
        },
      ],
      origins: [],
    },
    launchOptions: {
      executablePath: chromium,
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
});
