export { applyMutation, newItem } from './apply';
export * from './clock';
export * from './feeds';
export { mergeActivities, mergeItems, withMarksOf } from './merge';
