const transform = {
  '^.+\\.(tsx?|mjs|js)$': [
    '@swc/jest',
    {
      jsc: { target: 'es2022', transform: { react: { runtime: 'automatic' } } },
      module: { type: 'commonjs' },
    },
  ],
};
const moduleNameMapper = { '^@zb/(core|server|emulator)/(.*)$': '<rootDir>/packages/$1/src/$2' };
// These packages come as ES modules only.
const transformIgnorePatterns = [
  '/node_modules/(?!(micromark[^/]*|decode-named-character-reference|character-entities[^/]*|ccount|devlop|zstddec|pkijs|asn1js|pvtsutils|pvutils|bytestreamjs|qr|@noble|@peculiar|react-hotkeys-hook)/)',
];
// Tests run inside a vm, where each look-up of a global is slow: what computes much is given its own ones, and takes half as long.
const sandboxInjectedGlobals = [
  'Array',
  'BigInt',
  'DataView',
  'Float64Array',
  'JSON',
  'Math',
  'Number',
  'Object',
  'Set',
  'String',
  'Uint8Array',
  'Uint32Array',
];
const base = {
  sandboxInjectedGlobals,
  transform,
  transformIgnorePatterns,
  moduleNameMapper,
  rootDir: import.meta.dirname,
  globalSetup: '<rootDir>/tests/setup.ts',
};

export default {
  projects: [
    {
      ...base,
      displayName: 'unit',
      testMatch: ['<rootDir>/packages/*/test/**/*.test.{ts,tsx}'],
      setupFiles: ['<rootDir>/packages/web/test/encoders.ts'],
      setupFilesAfterEnv: ['<rootDir>/packages/web/test/patient.ts'],
    },
    {
      ...base,
      displayName: 'oracle',
      testMatch: ['<rootDir>/tests/oracle/**/*.oracle.ts'],
      globalSetup: '<rootDir>/tests/oracle/setup.ts',
      globalTeardown: '<rootDir>/tests/oracle/teardown.ts',
    },
  ],
};
