import { defineConfig } from '@playwright/test';

const first = process.env.MAYPOLE_ADDRESS ?? 'http://127.0.0.1:4173';
/** Files about what is drawn and delivered: about half of the time of all. */
const DRAWING = /\/(1|7|8|9|10|11|12|13|14|19)-[^/]+\.spec\.ts$/;

export default defineConfig({
  testDir: 'e2e',
  // What hangs ends after these; no test is to hang on the speed of a machine, which other work may share.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  // Two lanes side by side, each with an application and a shelf of its own; within a lane one test after the other.
  workers: 2,
  fullyParallel: false,
  projects: [
    { name: 'drawing', testMatch: DRAWING, workers: 1, use: { baseURL: first } },
    {
      name: 'working',
      testMatch: /\.spec\.ts$/,
      testIgnore: DRAWING,
      workers: 1,
      use: { baseURL: process.env.MAYPOLE_ADDRESS_2 ?? first },
    },
  ],
  // What takes long and is tested in short elsewhere runs with `./maypole test --all` only.
  grepInvert: process.env.MAYPOLE_AT_LENGTH === '1' ? undefined : /@long/,
  // On a machine that has other work a test may miss its time. What passes only at the second try is named at the end.
  retries: process.env.CI ? 1 : 0,
  use: {
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
