import swcJest from '@swc/jest';

/**
 * Tests run in a context of their own, in which every look at `Math` or `Infinity` goes a long way
 * round. Each module is given names of its own for the very same things: what reckons a lot is
 * several times as quick.
 */
const NEAR = 'const { Math, Number, Object, Array, Map, Set, Float64Array, Float32Array, Uint8Array, Infinity, NaN } = globalThis; '; // prettier-ignore

const brought = (result) => ({ ...result, code: `${NEAR}${result.code}` });

export default {
  createTransformer: (options) => {
    const inner = swcJest.createTransformer(options);
    return {
      ...inner,
      process: (...args) => brought(inner.process(...args)),
      processAsync: async (...args) => brought(await inner.processAsync(...args)),
    };
  },
};
