const path = require('node:path');
const plugin = require('tailwindcss/plugin');
const { day, fonts, night } = require('../app/src/ui/tokens');

const properties = (theme) => Object.fromEntries(Object.entries(theme).map(([name, value]) => [`--${name}`, value]));
const quoted = (families) => families.map((family) => (family.includes(' ') ? `"${family}"` : family));

/** The app's colours and sizes, for pages that follow the browser's theme. @type {import('tailwindcss').Config} */
module.exports = {
  content: [path.join(path.dirname(require.resolve('./package.json')), 'src/**/*.tsx')],
  theme: {
    colors: {
      transparent: 'transparent',
      ...Object.fromEntries(Object.keys(day).map((name) => [name, `var(--${name})`])),
    },
    fontFamily: { ui: quoted(fonts.ui), read: quoted(fonts.read) },
    fontSize: {
      small: ['13.5px', '19px'],
      base: ['16px', '23px'],
      row: ['17.5px', '23px'],
      head: ['20px', '27px'],
      title: ['28px', '33px'],
    },
  },
  plugins: [
    plugin(({ addBase }) => {
      addBase({
        ':root': { ...properties(day), 'color-scheme': 'light' },
        '@media (prefers-color-scheme: dark)': {
          ':root': { ...properties(night), 'color-scheme': 'dark' },
        },
      });
    }),
  ],
};
