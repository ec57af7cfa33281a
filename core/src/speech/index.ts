export { say, wordAt, type Said } from './say';
export * from './utterances';
