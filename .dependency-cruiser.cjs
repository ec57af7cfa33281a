/** The import rules of the house: data flows one way (see README, "How it is built"). */
const { readdirSync } = require('node:fs');
const path = require('node:path');

const rule = (name, comment, from, to) => ({ name, comment, severity: 'error', from, to });
const CORE = 'core/src/';
/** What each part of core may use beside itself. `model` is the ground, then `address` and `text`, then the others. */
const CORE_USES = {
  model: [],
  cards: ['model', 'text'],
  address: ['model'],
  text: [],
  terms: ['text'],
  colour: ['model'],
  looking: ['colour', 'model'],
  picture: ['model'],
  place: ['model'],
  copies: ['model', 'picture', 'text'],
  extract: ['model', 'text'],
  dossier: ['model', 'notes', 'reading', 'wording'],
  'bring-in': ['formats', 'model', 'text'],
  formats: ['cards', 'dossier', 'look-back', 'model', 'notes', 'text', 'wording'],
  gist: ['terms', 'text'],
  highlight: ['model', 'text'],
  forecast: ['model', 'reading'],
  'look-back': ['model', 'queue', 'reading', 'terms'],
  queue: ['model', 'reading', 'records', 'text'],
  trail: ['model', 'notes', 'reading'],
  'working-over': ['model', 'notes', 'reading'],
  notes: ['model'],
  reading: ['model', 'text'],
  nearness: [],
  relate: ['nearness', 'terms', 'text'],
  echo: ['model', 'terms', 'text'],
  'new-to-you': ['terms', 'text'],
  search: ['address', 'colour', 'copies', 'model', 'notes', 'picture', 'place', 'terms', 'text'],
  listening: [],
  speech: ['listening', 'model', 'text'],
  voice: ['listening'],
  emoji: [],
  strand: ['model'],
  records: ['address', 'model', 'notes'],
  sync: ['model', 'records'],
  client: ['model', 'sync'],
  testing: ['model', 'records', 'sync'],
  wording: ['address', 'cards', 'look-back', 'model', 'nearness', 'notes', 'queue', 'reading', 'records', 'trail'],
};
/** The app from the ground up: a folder uses those of the layers below its own. */
const APP_LAYERS = [
  ['navigation', 'ui', 'device'],
  ['article', 'features/pins', 'features/collecting'],
  ['features/settings', 'features/notes', 'features/cards', 'features/related', 'features/find'],
  ['features/feeds', 'features/add', 'features/echoes', 'features/new-to-you', 'features/tags', 'features/elsewhere'],
  ['features/trail', 'features/work-over', 'features/first-steps', 'features/pictures'],
  ['features/items'],
  [
    'features/library',
    'features/listen',
    'features/podcast',
    'features/reminders',
    'features/dossiers',
    'features/archive',
  ],
  ['features/highlights', 'features/now', 'features/statistics', 'features/account', 'features/sort'],
  ['features/look-back', 'features/reader', 'features/you'],
  ['features/shell'],
  ['app'],
];
/** The server's folders likewise. */
const SERVER_LAYERS = [
  ['files'],
  ['db', 'apart', 'fetching'],
  ['accounts', 'jobs', 'library', 'operating'],
  ['archive', 'capture', 'feeds', 'mail', 'publish'],
  ['tasks', 'routes'],
];
/** The extension's: what each part of it runs in. */
const EXTENSION_LAYERS = [['ui', 'content'], ['background'], ['panel', 'options']];
/** What is no layer: commands and the service worker compose, and nobody imports them. */
const OUTSIDE = ['commands', 'service-worker', 'features'];
/** One rule a folder: what stands beside it or above it is out of its reach. A folder that is in no layer is a mistake. */
const layered = (root, layers) => {
  const listed = layers.flat();
  const isListed = (folder) => listed.some((each) => each === folder || each.startsWith(`${folder}/`));
  const folders = (at) =>
    readdirSync(path.join(root, at), { withFileTypes: true })
      .filter((entry) => entry.isDirectory())
      .map((entry) => path.join(at, entry.name));
  const nested = new Set(listed.filter((each) => each.includes('/')).map((each) => path.dirname(each)));
  const strays = ['', ...nested].flatMap(folders).filter((folder) => !isListed(folder) && !OUTSIDE.includes(folder));
  if (strays.length > 0) throw new Error(`${root}: in no layer: ${strays.join(', ')}`);
  return layers.flatMap((layer, height) =>
    layer.map((folder) => {
      const outOfReach = layers
        .slice(height)
        .flat()
        .filter((other) => other !== folder);
      return rule(
        `${root}${folder}`,
        `${folder} uses only what stands below it.`,
        { path: `^${root}${folder}/`, pathNot: '\\.(test\\.tsx?|test-data\\.ts)$' },
        { path: `^${root}(${outOfReach.join('|') || 'nothing'})/` },
      );
    }),
  );
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
      { path: `^${CORE}`, pathNot: '\\.test(-data)?\\.ts$' },
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
    ...layered('app/src/', APP_LAYERS),
    ...layered('server/src/', SERVER_LAYERS),
    ...layered('extension/src/', EXTENSION_LAYERS),
    rule(
      'core-without-interface',
      'Core draws nothing and stores nothing.',
      { path: `^${CORE}` },
      { path: 'node_modules/(react|react-dom|react-native|zustand|dexie|drizzle-orm|express)/' },
    ),
    rule(
      'no-deep-core',
      'Core is used through its parts.',
      { path: '^(server|app|extension|demo|e2e)/' },
      { path: `^${CORE}[a-z]+/(?!index)` },
    ),
    rule(
      'fixtures-only-in-tests',
      'What tests share ships to nobody.',
      { path: '^(core|server|app|extension)/', pathNot: '(\\.test\\.tsx?$|\\.test-data\\.ts$|^core/src/testing/)' },
      { path: '^core/src/testing/' },
    ),
    rule(
      'one-way-out',
      'What is fetched is fetched by server/fetching, which looks where an address leads.',
      { path: '^server/src/', pathNot: '^server/src/(fetching|commands)/|\\.test\\.ts$' },
      {
        path: '^(node:)?(https?|http2)$|node_modules/(undici|axios|got|node-fetch)/',
        dependencyTypesNot: ['type-only'],
      },
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
