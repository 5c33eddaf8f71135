import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // Types are checked by `npm test`; a start should not wait for them.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['postgres'],
};

export default config;
