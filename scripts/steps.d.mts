/** How Node is told to run a TypeScript file of ours. */
export const NODE_WORDS: readonly string[];
