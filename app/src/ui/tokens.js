/**
 * Every colour, tint and size of the interface, in one place. tailwind.config.js makes classes and custom
 * properties of them. Text pairs have a contrast of 4.8:1 or better (WCAG 2.2, 1.4.3), checked in tokens.test.ts.
 * `line` is for decoration only: the outline of a control uses `soft`.
 */
const day = {
  ground: '#F7F4EE',
  raised: '#FFFDF9',
  sunken: '#ECE6DB',
  line: '#CFC6B8',
  ink: '#2B2033',
  soft: '#5E5268',
  accent: '#6E2F6B',
  'on-accent': '#FFF9F2',
  ochre: '#8A5A00',
  brick: '#9A2F1E',
  moss: '#4C5F2A',
  /** Behind the sentence that is being spoken. */
  spoken: '#E4D6DF',
  /** Behind what is marked, by kind. */
  'mark-key': '#F5DC98',
  'mark-question': '#CDE2E8',
  'mark-quote': '#E6D3EC',
  'mark-to-do': '#D7E5BF',
  'mark-doubt': '#F3CDC1',
};

const night = {
  ground: '#18121D',
  raised: '#231B2A',
  sunken: '#110C15',
  line: '#43364C',
  ink: '#EEE6DA',
  soft: '#B9ADBF',
  accent: '#D7A0D6',
  'on-accent': '#2A1030',
  ochre: '#E3B75A',
  brick: '#F19A86',
  moss: '#B4C98B',
  spoken: '#3A2942',
  'mark-key': '#5A4310',
  'mark-question': '#1F4651',
  'mark-quote': '#4B2F57',
  'mark-to-do': '#384A1C',
  'mark-doubt': '#5E2A1F',
};

const fonts = {
  ui: ['Atkinson Hyperlegible Next Variable', 'Noto Sans JP Variable', 'Noto Naskh Arabic Variable', 'sans-serif'],
  read: ['Literata Variable', 'Noto Sans JP Variable', 'Noto Naskh Arabic Variable', 'serif'],
};

/** For who asks the system for more contrast: text pairs have 7:1 or better (1.4.6), and what is decoration can be seen. */
const dayOfMore = {
  ...day,
  ground: '#FFFFFF',
  raised: '#FFFFFF',
  sunken: '#F4F0E9',
  line: '#5E5268',
  ink: '#120B18',
  soft: '#3A3043',
  accent: '#531F51',
  ochre: '#5C3B00',
  brick: '#7A1F12',
  moss: '#35441B',
};
const nightOfMore = {
  ...night,
  ground: '#0B0710',
  raised: '#150E1A',
  sunken: '#000000',
  line: '#B9ADBF',
  ink: '#FFFFFF',
  soft: '#DDD3E2',
  accent: '#F0C4EF',
  'on-accent': '#1A051F',
  ochre: '#FFD98A',
  brick: '#FFC0B2',
  moss: '#D3E6B0',
};

module.exports = { day, night, dayOfMore, nightOfMore, fonts };
