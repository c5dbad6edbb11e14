export default {
  testEnvironment: 'node',
  testMatch: ['<rootDir>/{core,server,wire,web}/**/*.test.{ts,tsx}'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022', transform: { react: { runtime: 'automatic' } } },
        module: { type: 'es6' },
      },
    ],
  },
  moduleNameMapper: { '\\.css$': '<rootDir>/web/test/noStyles.js' },
  setupFiles: ['<rootDir>/jest.properties.js'],
  globalSetup: '<rootDir>/server/test/buildServer.mjs',
  maxWorkers: 2,
  // A busy machine is not a fault of the product.
  testTimeout: 180_000,
};
