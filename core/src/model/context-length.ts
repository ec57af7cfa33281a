/**
 * What stands around a marked passage is kept to this many characters on each side. In a file of its own, without
 * schemas: scripts that run in every page need it, and should be small.
 */
export const CONTEXT_LENGTH = 48;
