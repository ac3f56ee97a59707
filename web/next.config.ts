import path from 'node:path';
import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: [
    '@node-rs/argon2',
    'better-auth',
    'pino',
    'prom-client',
    'rotating-file-stream',
    'sharp',
    'yazl',
  ],
  transpilePackages: ['@maypole/core', '@maypole/render'],
  turbopack: { root: path.resolve(import.meta.dirname, '..') },
  poweredByHeader: false,
  reactStrictMode: true,
  // Type check and lint are steps of their own in `./maypole test`.
  typescript: { ignoreBuildErrors: true },
  images: { unoptimized: true },
  devIndicators: false,
};

export default config;
