import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['@electric-sql/pglite', 'fs-native-extensions', 'pg'],
  poweredByHeader: false,
  devIndicators: false,
  typescript: { ignoreBuildErrors: true },
  images: { unoptimized: true },
};

export default config;
