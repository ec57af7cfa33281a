const path = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');
const { withNativeWind } = require('nativewind/metro');
const { isLeftOut } = require('./left-out-names');

const LEFT_OUT_MODULE = path.join(__dirname, 'left-out.js');

function instead(origin, name) {
  // Zod's messages come in some fifty languages.
  if (origin.includes('/zod/') && name.endsWith('/locales/index.js')) return name.replace('index.js', 'en.js');
  return isLeftOut(origin, name) ? LEFT_OUT_MODULE : name;
}

const config = getDefaultConfig(__dirname);
const { resolveRequest } = config.resolver;
// What packages bring along that this app never runs would be in the first thing that is fetched: see docs/decisions/parts-of-the-app.md.
config.resolver.resolveRequest = (context, name, platform) =>
  (resolveRequest ?? context.resolveRequest)(context, instead(context.originModulePath, name), platform);

module.exports = withNativeWind(config, { input: './global.css', inlineRem: 16 });
