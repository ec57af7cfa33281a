// Builds the extension into dist/unpacked, a folder that Chromium and Firefox load; with --granted into dist/granted, which asks
// for nothing later: no test can press a browser's own dialogue.
import { execFileSync } from 'node:child_process';
import { cp, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { build } from 'esbuild';

const root = path.resolve(import.meta.dirname, '..');
const granted = process.argv.includes('--granted');
const out = path.join(root, 'dist', granted ? 'granted' : 'unpacked');
const require = createRequire(import.meta.url);
const { version } = JSON.parse(await readFile(path.join(root, 'package.json'), 'utf8'));
const icons = { 192: 'icon-192.png', 512: 'icon-512.png' };

const everywhere = ['http://*/*', 'https://*/*'];
const manifest = {
  manifest_version: 3,
  name: 'Dorvel',
  version,
  description: 'Save the page before you to your own library, to be read later as clean text.',
  icons,
  action: { default_popup: 'panel.html', default_title: 'Save this page', default_icon: icons },
  options_ui: { page: 'options.html', open_in_tab: true },
  // Chromium takes the worker, Firefox the script.
  background: { service_worker: 'background.js', scripts: ['background.js'] },
  // The page before the reader is opened by their press (activeTab); others only when they say so.
  permissions: ['activeTab', 'alarms', 'contextMenus', 'scripting', 'storage', 'tabs', 'unlimitedStorage'],
  ...(granted ? { host_permissions: ['<all_urls>'] } : { optional_host_permissions: everywhere }),
  commands: { _execute_action: { suggested_key: { default: 'Alt+Shift+S' } } },
  browser_specific_settings: { gecko: { id: 'extension@dorvel.invalid', strict_min_version: '128.0' } },
  minimum_chrome_version: '116',
};

await rm(out, { recursive: true, force: true });
await mkdir(path.join(out, 'fonts'), { recursive: true });
await build({
  entryPoints: [
    'background/background.ts',
    'panel/panel.tsx',
    'options/options.tsx',
    'content/search-line.ts',
    'content/marks.ts',
    'content/echoes.ts',
    'content/cut.ts',
  ].map((file) => ({ in: path.join(root, 'src', file), out: path.parse(file).name })),
  outdir: out,
  bundle: true,
  minify: true,
  format: 'iife',
  target: ['chrome116', 'firefox128'],
  jsx: 'automatic',
  define: {
    'process.env.NODE_ENV': '"production"',
    // What we show in a page is out of the page's reach; a test has to reach it.
    ROOTS_ARE_OPEN: String(granted),
  },
});
const sheets = [];
for (const name of ['atkinson-hyperlegible-next', 'literata']) {
  const source = path.dirname(require.resolve(`@fontsource-variable/${name}/package.json`));
  const sheet = await readFile(path.join(source, 'wght.css'), 'utf8');
  for (const [, font] of sheet.matchAll(/url\(\.\/files\/([^)]+)\)/g))
    await cp(path.join(source, 'files', font), path.join(out, 'fonts', font));
  sheets.push(sheet.replaceAll('./files/', './'));
}
await writeFile(path.join(out, 'fonts/fonts.css'), sheets.join('\n'));
execFileSync(
  process.execPath,
  [
    require.resolve('tailwindcss/lib/cli.js'),
    ...['--config', path.join(root, 'tailwind.config.cjs'), '--input', path.join(root, 'src/ui/page.css')],
    ...['--output', path.join(out, 'page.css'), '--minify'],
  ],
  // Its news on standard error are of no use here; a failure is one by its exit code.
  { stdio: 'ignore' },
);
for (const page of ['panel', 'options'])
  await cp(path.join(root, `src/${page}/${page}.html`), path.join(out, `${page}.html`));
for (const icon of Object.values(icons)) await cp(path.join(root, '../app/public', icon), path.join(out, icon));
await writeFile(path.join(out, 'manifest.json'), JSON.stringify(manifest, null, 2));
