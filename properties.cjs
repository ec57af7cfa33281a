// What `import fc from 'fast-check'` gets in tests: the package, with one seed. A run that lands or does not land should depend on
// what was changed and on nothing else; PROPERTY_SEED=any tries others (a mistake found so names its seed, which then becomes a
// test), and PROPERTY_SEED=<number> tries one.
/* global __dirname, process */
const path = require('node:path');
const fc = require(path.join(__dirname, 'node_modules/fast-check/lib/cjs/fast-check.js'));

const seed = process.env.PROPERTY_SEED ?? '20261130';
if (seed !== 'any') fc.configureGlobal({ seed: Number(seed) });
module.exports = fc;
