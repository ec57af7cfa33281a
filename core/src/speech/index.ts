export * from './choices';
export { say, wordAt, type Pronunciation, type Said } from './say';
export * from './utterances';
export * from './voices';
