/** Says nothing. */
module.exports = class {};
