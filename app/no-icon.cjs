// What stands for an icon where nothing is looked at.
module.exports = { __esModule: true, default: () => null };
