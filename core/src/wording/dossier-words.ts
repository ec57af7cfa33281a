import type { DossierAccent, DossierDesign, DossierTypeface, NotePurpose } from '../model';

/** What a note between the things of a dossier is for, in words. */
export const PURPOSE_WORDS: Readonly<Record<NotePurpose, string>> = {
  bridge: 'Leading on',
  summary: 'In short',
  judgement: 'What I make of it',
  question: 'Open question',
  'next-step': 'What now',
};

/** What a design is called, and what it is like. */
export const DESIGN_WORDS: Readonly<Record<DossierDesign, { name: string; about: string }>> = {
  quiet: { name: 'Quiet', about: 'One column, hairlines, nothing loud.' },
  report: { name: 'Report', about: 'Numbered sections, set to the left, a list of contents.' },
  almanac: { name: 'Almanac', about: 'Small capitals and double rules; two columns where there is room.' },
  poster: { name: 'Poster', about: 'A great title on a ground of the accent.' },
  sheets: { name: 'Sheets', about: 'Each thing on a sheet of its own, side by side where there is room.' },
};

export const ACCENT_WORDS: Readonly<Record<DossierAccent, string>> = {
  plum: 'Plum',
  moss: 'Moss',
  ochre: 'Ochre',
  brick: 'Brick',
  ink: 'Ink',
};

export const TYPEFACE_WORDS: Readonly<Record<DossierTypeface, string>> = {
  literata: 'Literata',
  'source-serif': 'Source Serif',
  atkinson: 'Atkinson Hyperlegible',
};

/** What a dossier says of itself as a book. */
export const BOOK_WORDS = {
  access:
    'Text with headings and a table of contents. Pictures are described as far as the pages that they come from do.',
  noText: 'Of this page only the address is kept.',
} as const;
