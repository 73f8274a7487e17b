import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['@electric-sql/pglite', 'fs-native-extensions', 'pg'],
  // An ES module, which the tests load as what they are compiled to.
  transpilePackages: ['@sindresorhus/transliterate'],
  poweredByHeader: false,
  devIndicators: false,
  typescript: { ignoreBuildErrors: true },
  images: { unoptimized: true },
};

export default config;
