// Plain JavaScript: a TypeScript one would have the server load a compiler at each start, 24 MB of it.
/** @type {import('next').NextConfig} */
const config = {
  serverExternalPackages: ['@electric-sql/pglite', 'fs-native-extensions', 'pg'],
  // ES modules, which the tests load as what they are compiled to. The first is used by a test alone.
  transpilePackages: [
    '@sindresorhus/transliterate',
    'd3-geo',
    'd3-array',
    'internmap',
    'supercluster',
    'kdbush',
    'fast-xml-parser',
    'saxen',
  ],
  poweredByHeader: false,
  devIndicators: false,
  typescript: { ignoreBuildErrors: true },
  images: { unoptimized: true },
  // Each page is loaded when it is first asked for: the start is waited for by somebody who wants one.
  experimental: { preloadEntriesOnStart: false },
};

export default config;
