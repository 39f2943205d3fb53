const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      module: { type: 'es6' },
      jsc: {
        target: 'es2022',
        parser: { syntax: 'typescript', tsx: true, decorators: true },
        transform: { legacyDecorator: true, decoratorMetadata: true, react: { runtime: 'automatic' } },
      },
    },
  ],
};
const project = (name) => ({
  displayName: name,
  rootDir: name,
  testMatch: ['<rootDir>/**/*.test.ts'],
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform,
});
export default {
  projects: [project('core'), project('demo'), project('server'), project('web')],
  maxWorkers: 2,
  testTimeout: 60_000,
};
