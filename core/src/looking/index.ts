export * from './features';
export * from './kind';
export * from './likeness';
export * from './skew';
