/**
 * What packages bring along and this app never runs, by the packages' own names for it: `left-out.js` stands in for these modules.
 * After an update a name that no longer fits would bring its module back, which a test tells (e2e/house/left-out.test.ts).
 */
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

/** Whether a module that is asked for by name is left out. @param {string} origin the file that asks @param {string} name */
exports.isLeftOut = (origin, name) => LEFT_OUT.some((left) => origin.includes(left.in) && left.names.test(name));
