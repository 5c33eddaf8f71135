import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // Types are checked by `npm test`; a start should not wait for them.
  typescript: { ignoreBuildErrors: true },
  experimental: {
    // A checkout is built once: writing the cache for a second build takes a third of the first.
    turbopackFileSystemCacheForBuild: false,
    // Errors of the server name their functions without maps, which would take 60 MB.
    serverMinification: false,
    turbopackSourceMaps: false,
  },
  serverExternalPackages: ['postgres'],
};

export default config;
