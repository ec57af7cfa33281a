export * from './changes';
export * from './notes';
export * from './pages';
export * from './highlights';
export * from './dossiers';
