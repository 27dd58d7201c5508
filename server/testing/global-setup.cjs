module.exports = async () => {};
