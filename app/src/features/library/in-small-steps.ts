import { ListCell } from '@/ui/list-cell';

/**
 * Of a long list rows are made few at a time, so that a frame is not late for them; seven screens above and below what is seen are
 * kept, in screens of the list.
 */
export const IN_SMALL_STEPS = {
  maxToRenderPerBatch: 4,
  updateCellsBatchingPeriod: 16,
  windowSize: 15,
  CellRendererComponent: ListCell,
};
