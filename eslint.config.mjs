import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** One-way dependencies: web → core, server → core, cli → core; core leans on nobody. */
const no = (patterns, message) => ({
  'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }] }],
});
const NODE = ['node:*', 'fs', 'path', 'os', 'crypto', 'child_process'];

export default tseslint.config(
  { ignores: ['**/dist/**', 'node_modules/**', 'test-results/**', 'packages/web/public/**', 'coverage/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommendedTypeChecked.map((c) => ({ ...c, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parserOptions: { project: './tsconfig.json', tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        Buffer: 'readonly',
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        performance: 'readonly',
      },
    },
  },
  {
    files: ['packages/core/src/**'],
    rules: {
      ...no(
        [...NODE, 'react*', '@chakra-ui/*', 'hono*', '@zb/*', '**/packages/*'],
        'core has no interface, DOM or Node code and depends on no other package',
      ),
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'Buffer',
        'fetch',
        'localStorage',
        'navigator',
        'setTimeout',
      ],
    },
  },
  {
    files: ['packages/web/src/**'],
    rules: no([...NODE, '@zb/server/*', '@zb/cli/*', 'hono*'], 'web depends on core alone'),
  },
  {
    files: ['packages/server/src/**'],
    rules: no(['@zb/web/*', '@zb/cli/*', 'react*'], 'server depends on core alone'),
  },
  {
    files: ['packages/cli/src/**'],
    rules: no(['@zb/web/*', '@zb/server/*', 'react*', 'hono*'], 'cli depends on core alone'),
  },
  {
    files: ['packages/web/src/features/**'],
    rules: no(
      [
        ...NODE,
        '@zb/server/*',
        '../survey/*',
        '../choose/*',
        '../verify/*',
        '../write/*',
        '../firmware/*',
        '../keep/*',
        '../shelf/*',
        '../match/*',
        '../images/*',
        '../logbook/*',
        '../later/*',
        '../newbox/*',
        '../benchfile/*',
        '../stop/*',
      ],
      'a feature imports core and shared parts, never another feature',
    ),
  },
  {
    files: ['packages/web/src/**'],
    plugins: { 'react-hooks': hooks },
    rules: hooks.configs.recommended.rules,
  },
  {
    files: ['packages/*/test/**', 'tests/**'],
    rules: { '@typescript-eslint/no-unsafe-assignment': 'off', '@typescript-eslint/require-await': 'off' },
  },
);
