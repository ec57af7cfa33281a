export { applyMutation, newItem } from './apply';
export * from './clock';
export * from './feeds';
export * from './highlights';
export { mergeActivities, mergeItems, withMarksOf } from './merge';
export * from './searches';
export * from './notes';
export * from './cards';
