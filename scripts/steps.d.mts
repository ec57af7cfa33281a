/** How Node is told to run the server as it was built. */
export const SERVER_WORDS: readonly string[];
