/**
 * Compiles TypeScript for the unit tests. Jest runs each file in a context of its own, in which every look at a global
 * goes through an interceptor: loops over `Math` and typed arrays were up to ten times slower than in Node.js. Each
 * module therefore takes the globals that computing leans on into its own scope, once.
 */
import swc from '@swc/jest';

const COMPILED = {
  module: { type: 'es6' },
  jsc: {
    target: 'es2022',
    parser: { syntax: 'typescript', tsx: true, decorators: true },
    transform: { legacyDecorator: true, decoratorMetadata: true, react: { runtime: 'automatic' } },
  },
};
const TAKEN = [
  ...['Math', 'Number', 'Array', 'Object', 'Map', 'Set', 'WeakMap', 'String', 'NaN', 'Infinity', 'ArrayBuffer'],
  ...['DataView', 'Float32Array', 'Float64Array', 'Int8Array', 'Int16Array', 'Int32Array'],
  ...['Uint8Array', 'Uint8ClampedArray', 'Uint16Array', 'Uint32Array'],
];
// On the first line, so that errors tell the lines of the source.
const taking = `const { ${TAKEN.join(', ')} } = globalThis; `;

const compiler = swc.createTransformer(COMPILED);
const within = (made) => ({ ...made, code: taking + made.code });

export default {
  ...compiler,
  process: (...of) => within(compiler.process(...of)),
  processAsync: async (...of) => within(await compiler.processAsync(...of)),
};
