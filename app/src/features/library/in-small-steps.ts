/** Of a long list rows are made few at a time, so that a frame is not late for them. */
export const IN_SMALL_STEPS = { maxToRenderPerBatch: 4, updateCellsBatchingPeriod: 16 };
