/**
 * With a seed from outside, property tests draw the same examples on every machine; `npm test` gives one, so that what it
 * says can be repeated. `npm run unit` draws new examples each time and prints the seed of a failure.
 */
const seed = Number(process.env['PROPERTY_SEED']);
if (Number.isInteger(seed) && seed !== 0) require('fast-check').configureGlobal({ seed });
