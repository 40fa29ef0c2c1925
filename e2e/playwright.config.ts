import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'specs',
  workers: 1,
  fullyParallel: false,
  forbidOnly: true,
  // A machine that loses its processor for a while fails a test once; what fails twice is a fault. Either is printed.
  retries: 1,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['line']],
  use: {
    baseURL: process.env.BASE_URL,
    viewport: { width: 1280, height: 800 },
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-gl=angle',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
