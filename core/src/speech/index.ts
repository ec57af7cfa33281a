export * from './utterances';
export * from './voices';
