// Stands in for what packages bring along and this app never runs: see left-out-names.js, which says for what.
const { createContext } = require('react');

const leftOut = (what) => () => {
  throw new Error(`${what} is left out of the app: see docs/decisions/parts-of-the-app.md`);
};

// Expo Router asks for these when it starts.
exports.createNativeStackNavigator = () => ({ Navigator: leftOut('The stack navigator') });
exports.BottomTabBarHeightContext = createContext(undefined);

// Zod gives them to every schema.
exports.createToJSONSchemaMethod = () => leftOut('JSON Schema');
exports.createStandardJSONSchemaMethod = () => leftOut('JSON Schema');
exports.aggregateChecks = leftOut('JSON Schema');
exports.toJSONSchema = leftOut('JSON Schema');
exports.fromJSONSchema = leftOut('JSON Schema');
exports.compile = leftOut('The compiler of schemas');
