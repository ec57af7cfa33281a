import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';

const app = path.join(__dirname, '../../app');
const fromApp = createRequire(path.join(app, 'package.json'));
const { isLeftOut } = fromApp('./left-out-names.js') as { isLeftOut(origin: string, name: string): boolean };
const standsIn = fromApp('./left-out.js') as Record<string, unknown>;

/** A package's files that ask for what is left out, by the packages' own manifests: they say where they are. */
const fileIn = (name: string, file: string) => path.join(path.dirname(fromApp.resolve(`${name}/package.json`)), file);
const ROUTER = 'expo-router';
const ASKED: readonly [name: string, file: string, asks: string][] = [
  [ROUTER, 'build/exports.js', './layouts/Tabs'],
  [ROUTER, 'build/exports.js', './layouts/experimental-stack'],
  [ROUTER, 'build/layouts/StackClient.js', 'createNativeStackNavigator'],
  [ROUTER, 'build/views/ErrorBoundary.js', 'react-navigation/bottom-tabs'],
  [ROUTER, 'build/layouts/Stack.web.js', 'stack-utils'],
  ['expo-modules-core', 'src/index.ts', './uuid'],
  ['expo-modules-core', 'src/polyfill/dangerous-internal.ts', '../uuid/index.web'],
  ['zod', 'v4/classic/schemas.js', '../core/json-schema-processors.js'],
  ['zod', 'v4/classic/schemas.js', '../core/to-json-schema.js'],
  ['zod', 'v4/classic/external.js', './from-json-schema.js'],
  ['zod', 'v4/core/index.js', './json-schema-generator.js'],
  ['zod', 'v4/core/index.js', './compile.js'],
];

// Where a package has renamed what it brings along, it is back in the first thing that is fetched.
describe('what the app leaves out of packages', () => {
  it.each(ASKED)('%s asks for it in %s: %s', (name, file, asks) => {
    const origin = fileIn(name, file);
    const asked = [...readFileSync(origin, 'utf8').matchAll(/(?:from |require\()['"]([^'"]+)['"]/g)].map(
      ([, it]) => it,
    );
    const found = asked.filter((each) => each?.endsWith(asks));
    expect(found).not.toEqual([]);
    for (const each of found) expect(isLeftOut(origin, each ?? '')).toBe(true);
  });

  it('what Zod takes by name stands in', () => {
    const source = readFileSync(fileIn('zod', 'v4/classic/schemas.js'), 'utf8');
    const taken = [...source.matchAll(/^import \{([^}]+)\} from "[^"]*\/to-json-schema\.js"/gm)].flatMap(([, names]) =>
      (names ?? '').split(',').map((name) => name.trim().split(' ')[0] ?? ''),
    );
    expect(taken).not.toEqual([]);
    expect(Object.keys(standsIn)).toEqual(expect.arrayContaining(taken));
  });

  it('what the app itself asks for is not', () => {
    expect(isLeftOut(path.join(app, 'src/before.ts'), 'zod')).toBe(false);
    expect(isLeftOut(fileIn(ROUTER, 'build/exports.js'), './views/Navigator')).toBe(false);
    expect(isLeftOut(path.join(app, 'src/ui/uuid/index.web'), './uuid')).toBe(false);
  });
});
