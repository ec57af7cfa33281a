const path = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');
const { withNativeWind } = require('nativewind/metro');

const LEFT_OUT_MODULE = path.join(__dirname, 'left-out.js');

/** What stands in for modules that packages bring along and this app never runs, by the packages' own names for them. */
const LEFT_OUT = [
  {
    in: '/expo-router/build/',
    // Navigators of their own kinds: the app has one frame, and Slot.
    names:
      /(?:^|\/)(?:layouts\/Tabs|layouts\/experimental-stack|react-navigation\/bottom-tabs|createNativeStackNavigator|stack-utils)$/,
  },
  // Names for things, of which the app has its own. It throws while it starts.
  { in: '/expo-modules-core/', names: /\/uuid(?:\/index\.web)?$/ },
  {
    in: '/zod/',
    names: /\/(?:json-schema-processors|json-schema-generator|to-json-schema|from-json-schema|compile)\.js$/,
  },
];

function instead(origin, name) {
  // Zod's messages come in some fifty languages.
  if (origin.includes('/zod/') && name.endsWith('/locales/index.js')) return name.replace('index.js', 'en.js');
  return LEFT_OUT.some((left) => origin.includes(left.in) && left.names.test(name)) ? LEFT_OUT_MODULE : name;
}

const config = getDefaultConfig(__dirname);
const { resolveRequest } = config.resolver;
// What packages bring along that this app never runs would be in the first thing that is fetched: see docs/decisions/parts-of-the-app.md.
config.resolver.resolveRequest = (context, name, platform) =>
  (resolveRequest ?? context.resolveRequest)(context, instead(context.originModulePath, name), platform);

module.exports = withNativeWind(config, { input: './global.css', inlineRem: 16 });
