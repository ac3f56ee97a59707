import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  // What hangs ends after these; no test is to hang on the speed of a machine, which other work may share.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  // Software drawing takes both cores by itself.
  workers: 1,
  fullyParallel: false,
  // On a machine that has other work a test may miss its time. What passes only at the second try is named at the end.
  retries: process.env.CI ? 1 : 0,
  use: {
    baseURL: process.env.MAYPOLE_ADDRESS ?? 'http://127.0.0.1:4173',
    viewport: { width: 1280, height: 800 },
    // A quarter as many pixels each way: drawing in software is what most of the time goes into.
    deviceScaleFactor: 0.25,
    acceptDownloads: true,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        // The page itself is put together by the processor directly, and not by drawing it in software as a scene.
        '--disable-gpu-compositing',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
