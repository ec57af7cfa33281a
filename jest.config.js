const path = require('node:path');

const transform = {
  '\\.m?[jt]sx?$': [
    'babel-jest',
    {
      configFile: path.join(__dirname, 'app/babel.config.js'),
      caller: { name: 'metro', bundler: 'metro', platform: 'web' },
    },
  ],
};
// Properties are tried with one seed: properties.cjs says why.
const properties = { '^fast-check$': path.join(__dirname, 'properties.cjs') };
const node = (name) => ({
  displayName: name,
  preset: 'jest-expo/node',
  rootDir: path.join(__dirname, name),
  testMatch: ['<rootDir>/**/*.test.ts'],
  transform,
  // Much of what core stands on ships as ES modules only; telling which is more trouble than translating the rest.
  transformIgnorePatterns: ['node_modules/(?:@babel|jest|@jest|libsql|@libsql|sharp|drizzle-orm|piscina)/'],
  moduleNameMapper: { ...properties, '^@dorvel/core/(.*)$': path.join(__dirname, 'core/src/$1') },
});

module.exports = {
  // No test asserts times, and a machine may have other work: what hangs is told soon enough.
  testTimeout: 300_000,
  projects: [
    node('core'),
    node('server'),
    node('extension'),
    // Where the parts of the house meet.
    {
      ...node('e2e'),
      moduleNameMapper: { ...node('e2e').moduleNameMapper, '^@/(.*)$': path.join(__dirname, 'app/src/$1') },
    },
    {
      displayName: 'app',
      preset: 'jest-expo/web',
      rootDir: path.join(__dirname, 'app'),
      testMatch: ['<rootDir>/src/**/*.test.ts?(x)'],
      moduleNameMapper: {
        ...properties,
        '^@/(.*)$': '<rootDir>/src/$1',
        '^@dorvel/core/(.*)$': path.join(__dirname, 'core/src/$1'),
        // They come as modules of a kind that Jest cannot require, and say nothing.
        '^lucide-react/dist/esm/icons/(.*)$': path.join(__dirname, 'app/no-icon.cjs'),
      },
      transformIgnorePatterns: [
        'node_modules/(?:@babel|jest|@jest|react|react-dom|react-test-renderer|dexie|fake-indexeddb)/',
      ],
    },
  ],
};
