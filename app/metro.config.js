const { getDefaultConfig } = require('expo/metro-config');
const { withNativeWind } = require('nativewind/metro');

const config = getDefaultConfig(__dirname);
const { resolveRequest } = config.resolver;
// Zod brings its messages in some fifty languages with it, and all of them would be in the first thing that is fetched.
config.resolver.resolveRequest = (context, name, platform) =>
  (resolveRequest ?? context.resolveRequest)(
    context,
    name.endsWith('/locales/index.js') && context.originModulePath.includes('/zod/')
      ? name.replace('index.js', 'en.js')
      : name,
    platform,
  );

module.exports = withNativeWind(config, { input: './global.css', inlineRem: 16 });
