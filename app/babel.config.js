module.exports = function (api) {
  const test = api.env('test'); // NativeWind's transform does not run under Jest; reading env also keys Babel's cache
  return {
    presets: [
      ['babel-preset-expo', test ? {} : { jsxImportSource: 'nativewind' }],
      ...(test ? [] : ['nativewind/babel']),
    ],
  };
};
