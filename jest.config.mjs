/** Packages that compute, taken through the transform with the code that leans on them. */
const COMPUTING = ['clipper2-ts', 'culori', 'd3-contour'].join('|');
const project = (name) => ({
  displayName: name,
  rootDir: name,
  testMatch: ['<rootDir>/**/*.test.ts'],
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { [`\\.tsx?$|/node_modules/(${COMPUTING})/.+\\.js$`]: '<rootDir>/../scripts/jest-transform.mjs' },
  transformIgnorePatterns: [`/node_modules/(?!(${COMPUTING})/)`],
});
export default {
  projects: [project('core'), project('demo'), project('server'), project('web')],
  maxWorkers: 2,
  testTimeout: 60_000,
};
