import path from 'node:path';
import type { NextConfig } from 'next';

const config: NextConfig = {
  transpilePackages: ['@maypole/core'],
  turbopack: { root: path.resolve(import.meta.dirname, '..') },
  poweredByHeader: false,
  reactStrictMode: true,
  // Type check and lint are steps of their own in `./maypole test`.
  typescript: { ignoreBuildErrors: true },
  images: { unoptimized: true },
  devIndicators: false,
  // A piece with its files may be this large; without it the proxy cuts bodies off at 10 MB.
  experimental: { proxyClientMaxBodySize: 160 * 1024 * 1024 },
};

export default config;
