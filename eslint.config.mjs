import { readdirSync } from 'node:fs';
import js from '@eslint/js';
import jsdoc from 'eslint-plugin-jsdoc';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** One-way dependencies: web → core, server → core, cli → core; core leans on nobody. */
const no = (patterns, message) => ({
  'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }] }],
});
const NODE = ['node:*', 'fs', 'path', 'os', 'crypto', 'child_process'];
const INTERFACE = ['react*', '@chakra-ui/*', '@tanstack/*'];
/** Other packages, by their name and by a path that leads into them. */
const of = (...packages) => packages.flatMap((p) => [`@zb/${p}`, `@zb/${p}/*`, `**/${p}/src/**`]);
const NOT_IN_WEB = [...NODE, 'hono*', ...of('server', 'cli', 'emulator')];
const features = readdirSync(new URL('packages/web/src/features', import.meta.url));

export default tseslint.config(
  { ignores: ['**/dist/**', 'node_modules/**', 'test-results/**', 'packages/web/public/**', 'coverage/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended.map((c) => ({ ...c, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
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
        [...NODE, ...INTERFACE, 'hono*', '@zb/*', ...of('web', 'server', 'cli', 'emulator')],
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
    // What core gives away says what it is, in which units, and where a rule of it comes from.
    files: ['packages/core/src/**'],
    plugins: { jsdoc },
    rules: {
      'jsdoc/require-jsdoc': [
        'error',
        {
          publicOnly: { esm: true },
          enableFixer: false,
          require: { ArrowFunctionExpression: true, ClassDeclaration: true, FunctionDeclaration: true },
          contexts: [
            'TSInterfaceDeclaration',
            // A type made from a schema has the schema's comment.
            'ExportNamedDeclaration > TSTypeAliasDeclaration:not(:has(TSTypeReference[typeName.right.name="infer"]))',
          ],
        },
      ],
    },
  },
  { files: ['packages/web/src/**'], rules: no(NOT_IN_WEB, 'web depends on core alone') },
  {
    files: ['packages/server/src/**'],
    rules: {
      ...no([...INTERFACE, ...of('web', 'cli')], 'server depends on core, and on the emulator for trials'),
    },
  },
  {
    files: ['packages/emulator/src/**'],
    rules: {
      ...no([...INTERFACE, 'hono*', ...of('web', 'server', 'cli')], 'the emulator depends on core alone'),
    },
  },
  {
    files: ['packages/cli/src/**'],
    rules: no(
      [...INTERFACE, 'hono*', ...of('web', 'server')],
      'cli depends on core, and on the emulator for trials',
    ),
  },
  {
    files: ['packages/web/src/{drawing,parts,storage,theme,ui,workers}/**'],
    rules: no(
      [...NOT_IN_WEB, '**/app/*', '**/features/**'],
      'what screens share leans on no screen and not on the shell',
    ),
  },
  {
    files: ['packages/web/src/features/**'],
    rules: no(
      [...NOT_IN_WEB, '**/app/*', ...features.map((f) => `../${f}/*`)],
      'a feature imports core and shared parts, never another feature',
    ),
  },
  {
    files: ['packages/web/src/**'],
    plugins: { 'react-hooks': hooks },
    rules: hooks.configs.recommended.rules,
  },
  {
    // Screens are made of the house's components: no hand-made controls, no class names, no styles in place.
    files: ['packages/web/src/{app,features,parts}/**/*.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'JSXOpeningElement[name.name=/^(table|input|select|textarea|button|dialog|details|summary|label|fieldset)$/]',
          message: 'A control or a table is one of ui/, not an element of the page.',
        },
        {
          selector: 'JSXAttribute[name.name=/^(className|style)$/]',
          message: 'A look is a token, a recipe or a property of a component.',
        },
        {
          selector:
            'JSXMemberExpression[object.name="chakra"][property.name=/^(input|select|textarea|dialog|details)$/]',
          message: 'A control is one of ui/.',
        },
      ],
    },
  },
);
