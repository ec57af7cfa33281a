/** The import rules of the house: data flows one way (see README, "How it is built"). */
const rule = (name, comment, from, to) => ({ name, comment, severity: 'error', from, to });
const CORE = 'core/src/';
/** What each part of core may use beside itself. `model` is the ground, then `address` and `text`, then the others. */
const CORE_USES = {
  model: [],
  cards: ['model', 'text'],
  address: ['model'],
  text: [],
  terms: ['text'],
  copies: ['model', 'text'],
  extract: ['model', 'text'],
  formats: ['cards', 'model', 'text', 'wording'],
  gist: ['terms', 'text'],
  highlight: ['model', 'text'],
  queue: ['model', 'text'],
  relate: ['terms'],
  search: ['copies', 'model', 'terms', 'text'],
  speech: ['model', 'text'],
  sync: ['model', 'address'],
  wording: ['model', 'address'],
};

module.exports = {
  forbidden: [
    rule('no-cycles', 'Not even of types.', {}, { circular: true }),
    rule(
      'core-is-alone',
      'Core imports nothing of ours and nothing of Node.',
      { path: `^${CORE}`, pathNot: '\\.test\\.ts$' },
      { path: '^(server|app|extension|demo|e2e|bench)/' },
    ),
    rule(
      'core-is-pure',
      'Core runs anywhere: no Node built-ins, no React.',
      { path: `^${CORE}`, pathNot: '\\.test\\.ts$' },
      { dependencyTypes: ['core'] },
    ),
    ...Object.entries(CORE_USES).map(([part, uses]) =>
      rule(
        `core-${part}`,
        `core/${part} may use ${uses.join(', ') || 'nothing else'} of core.`,
        { path: `^${CORE}${part}/`, pathNot: '\\.test\\.ts$' },
        { path: `^${CORE}`, pathNot: `^${CORE}(${[part, ...uses].join('|')})/` },
      ),
    ),
    rule(
      'server-uses-core',
      'The server knows nothing of the app.',
      { path: '^server/' },
      { path: '^(app|extension|demo|e2e|bench)/' },
    ),
    rule(
      'app-uses-core',
      'The app knows nothing of the server.',
      { path: '^app/' },
      { path: '^(server|extension|demo|e2e|bench)/' },
    ),
    rule(
      'extension-uses-core',
      'The extension knows nothing of the server, and of the app only its colours.',
      { path: '^extension/' },
      { path: '^(server|app|demo|e2e|bench)/', pathNot: '^app/src/ui/tokens' },
    ),
    rule(
      'routes-only-at-the-top',
      'Nothing imports a route.',
      { path: '^app/src/(features|ui|device)/' },
      { path: '^app/src/app/' },
    ),
    rule(
      'ui-and-device-below-features',
      'The design system and the device know no feature.',
      { path: '^app/src/(ui|device|service-worker)/' },
      { path: '^app/src/features/' },
    ),
    rule(
      'ui-knows-no-device',
      'What draws does not read.',
      { path: '^app/src/ui/' },
      { path: '^app/src/device/' },
    ),
    rule(
      'no-deep-core',
      'Core is used through its parts.',
      { path: '^(server|app|extension|demo|e2e)/' },
      { path: `^${CORE}[a-z]+/(?!index)` },
    ),
    rule('nothing-unresolved', 'An import that leads nowhere.', {}, { couldNotResolve: true }),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules/.cache|migrations)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.d.ts', '.js', '.mjs', '.cjs', '.json'],
    },
  },
};
