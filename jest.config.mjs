/** Tested in Node, compiled by swc; a test of the page's own logic asks for jsdom in its first line. */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/src', '<rootDir>/demo', '<rootDir>/attack', '<rootDir>/scripts'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  transform: {
    '^.+\\.m?[jt]sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  // These are published as ES modules alone.
  transformIgnorePatterns: ['/node_modules/(?!(uuid|ical-generator|csv-parse|csv-stringify|cookie)/)'],
  // How long a test hangs before it is given up; a machine that others share takes several times as long as a quiet one.
  testTimeout: 100_000,
  // Left alone Jest keeps a core for itself.
  maxWorkers: '100%',
};
