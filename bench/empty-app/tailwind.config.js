module.exports = { content: ['./app/**/*.tsx'], presets: [require('nativewind/preset')] };
