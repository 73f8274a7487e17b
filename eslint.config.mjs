import js from '@eslint/js';
import importX from 'eslint-plugin-import-x';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import effects from 'eslint-plugin-react-you-might-not-need-an-effect';
import ts from 'typescript-eslint';

/**
 * Who may import whom: core <- sim, db, api, reader, server, workers, views; api <- server, views; reader <- server (its types); db <- server <- app; ui <- views <- app. The demo's data
 * is made of core and is put in by the server.
 */
const MAY_IMPORT = {
  core: [],
  door: [],
  sim: ['core', 'door'],
  db: ['core'],
  api: ['core'],
  reader: ['core'],
  server: ['core', 'api', 'db', 'reader', 'workers', 'demo'],
  workers: ['core'],
  ui: [],
  views: ['core', 'api', 'ui', 'workers'],
  'bench-page': ['core', 'ui', 'views'],
  app: ['server', 'views'],
  demo: ['core'],
};
const at = (name) => (name === 'demo' ? './demo' : `./src/${name}`);
const zones = Object.entries(MAY_IMPORT).map(([target, allowed]) => ({
  target: at(target),
  from: Object.keys(MAY_IMPORT)
    .filter((name) => name !== target && !allowed.includes(name))
    .map(at),
  message: `${target} may import ${allowed.join(', ') || 'nothing of the others'} only (eslint.config.mjs).`,
}));
// Within core: values know nothing of plans, plans nothing of models, and so on upwards.
const CORE_ORDER = [
  'radio',
  'document',
  'plan',
  'settings',
  'format',
  'models',
  'image',
  'link',
  'compare',
  'bench',
  'fit',
  'check',
  'heard',
  'table',
  'interchange',
  'organise',
  'directory',
];
const coreZones = CORE_ORDER.map((name, index) => ({
  target: `./src/core/${name}`,
  from: CORE_ORDER.slice(index + 1).map((later) => `./src/core/${later}`),
  message: `core/${name} comes before it: ${CORE_ORDER.join(', ')}.`,
}));

/** What belongs to a digital mode is data: MODE_TRAITS says it of a mode that comes later, too. */
const NO_MODE_NAMED = [
  {
    selector: 'BinaryExpression[operator=/^[!=]==$/] > Literal[value=/^(DMR|P25|C4FM|NXDN)$/]',
    message: 'Ask MODE_TRAITS what belongs to the mode.',
  },
];

/** `map ??= new Map()` has the type Map<any, any>, whatever the type of the variable says. */
const COLLECTIONS_TYPED = [
  {
    selector:
      "AssignmentExpression[operator='??='] > NewExpression[callee.name=/^(Map|Set)$/][arguments.length=0]:not([typeArguments])",
    message: 'Say what is in it: new Map<string, Job>().',
  },
];

export default ts.config(
  { ignores: ['.next/**', '.data/**', '.build/**', 'node_modules/**', 'next-env.d.ts', 'coverage/**'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { 'import-x': importX, 'react-hooks': reactHooks, effects, 'jsx-a11y': jsxA11y },
    settings: { 'import-x/resolver': { typescript: true, node: true } },
    rules: {
      // Without the rules of the React Compiler: they found nothing here, and took two thirds of the time of the lint.
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      'effects/no-derived-state': 'error',
      ...jsxA11y.flatConfigs.recommended.rules,
      'jsx-a11y/no-autofocus': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'max-lines': ['error', 400],
      'no-console': 'off',
    },
  },
  {
    files: ['src/**/*.{ts,tsx}', 'demo/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.test.kit.ts'],
    rules: {
      'import-x/no-restricted-paths': [
        'error',
        { zones: [...zones, ...coreZones].filter(({ from }) => from.length > 0) },
      ],
      'import-x/no-cycle': ['error', { maxDepth: 6 }],
    },
  },
  {
    // Properties take their seed from the kit, so that every run of npm test has the same cases.
    files: ['src/**/*.ts', 'e2e/**/*.ts', 'attack/**/*.{ts,mts}'],
    ignores: ['src/core/property.test.kit.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { paths: [{ name: 'fast-check', message: 'Use src/core/property.test.kit.ts.' }] },
      ],
    },
  },
  {
    // The core is free of React, Next, Node's API, the database, the clock and randomness.
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.test.kit.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            'node:*',
            'react',
            'react-dom',
            'next',
            'next/*',
            'drizzle-orm',
            'drizzle-orm/*',
            '@electric-sql/*',
            'fast-check',
          ],
        },
      ],
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'fetch',
        'setTimeout',
        'setInterval',
        'performance',
        'crypto',
        'Buffer',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: 'NewExpression[callee.name="Date"]', message: 'The core has no clock.' },
        ...NO_MODE_NAMED,
      ],
    },
  },
  {
    files: ['src/views/**/*.{ts,tsx}', 'src/server/**/*.ts', 'src/workers/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.test.kit.ts'],
    rules: { 'no-restricted-syntax': ['error', ...NO_MODE_NAMED, ...COLLECTIONS_TYPED] },
  },
  {
    files: ['**/*.cjs'],
    languageOptions: { globals: { module: 'readonly' } },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearTimeout: 'readonly',
        document: 'readonly',
        KeyboardEvent: 'readonly',
        requestAnimationFrame: 'readonly',
        MessageChannel: 'readonly',
        URL: 'readonly',
        Buffer: 'readonly',
        performance: 'readonly',
        AbortSignal: 'readonly',
        WebAssembly: 'readonly',
      },
    },
  },
);
