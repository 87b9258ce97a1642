/** What `node-flags.mjs` gives to programs in TypeScript. */
export const NODE_FLAGS: readonly string[];
