const plugin = require('tailwindcss/plugin');
const { day, dayOfMore, fonts, night, nightOfMore } = require('./src/ui/tokens');

const properties = (theme) => Object.fromEntries(Object.entries(theme).map(([name, value]) => [`--${name}`, value]));
/** What is no text and no line, where the system forces its colours. */
const FORCED = {
  ground: 'Canvas',
  raised: 'Canvas',
  sunken: 'Canvas',
  accent: 'LinkText',
  'on-accent': 'Canvas',
  spoken: 'Highlight',
  ...Object.fromEntries(
    Object.keys(day)
      .filter((name) => name.startsWith('mark-'))
      .map((name) => [name, 'Canvas']),
  ),
};
const quoted = (families) => families.map((family) => (family.includes(' ') ? `"${family}"` : family));

/** @type {import('tailwindcss').Config} */
module.exports = {
  content: ['./src/**/*.{ts,tsx}'],
  presets: [require('nativewind/preset')],
  darkMode: 'class',
  // react-native-web adds its own style sheet later; ours has to weigh more.
  important: '#root',
  theme: {
    colors: {
      transparent: 'transparent',
      ...Object.fromEntries(Object.keys(day).map((name) => [name, `var(--${name})`])),
    },
    fontFamily: { ui: quoted(fonts.ui), read: quoted(fonts.read) },
    // One scale: a size, with the line height that suits it.
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
        ':root.dark': { ...properties(night), 'color-scheme': 'dark' },
        '@media (prefers-contrast: more)': {
          ':root': properties(dayOfMore),
          ':root.dark': properties(nightOfMore),
        },
        // The colours are the reader's own; what we draw ourselves takes them too.
        '@media (forced-colors: active)': {
          ':root, :root.dark': properties(
            Object.fromEntries(Object.keys(day).map((name) => [name, FORCED[name] ?? 'CanvasText'])),
          ),
        },
      });
    }),
  ],
};
