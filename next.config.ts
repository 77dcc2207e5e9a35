import path from 'node:path';
import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // `npm test` runs the compiler over everything; a build need not do it again.
  typescript: { ignoreBuildErrors: true },
  outputFileTracingRoot: path.resolve('.'),
  turbopack: { root: path.resolve('.') },
  // These bring WebAssembly, native code or Node streams and must not be bundled.
  serverExternalPackages: [
    '@electric-sql/pglite',
    'fs-native-extensions',
    'pg',
    'sharp',
    '@react-pdf/renderer',
    'yazl',
    'yauzl',
    'highs',
    '@node-rs/argon2',
    'rate-limiter-flexible',
  ],
  // Asked for by browsers on pages that name no icon.
  rewrites: async () => [{ source: '/favicon.ico', destination: '/icon-192.png' }],
  experimental: {
    // A log entry carries several photographs of up to 15 MB each; archives go through a streaming route.
    serverActions: { bodySizeLimit: '100mb' },
  },
};

export default config;
