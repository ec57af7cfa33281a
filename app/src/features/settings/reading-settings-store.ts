import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

/** The typefaces that ship for reading. */
export const TYPEFACES = {
  literata: { label: 'Literata', family: '"Literata Variable"' },
  source: { label: 'Source Serif', family: '"Source Serif 4 Variable"' },
  atkinson: { label: 'Atkinson', family: '"Atkinson Hyperlegible Next Variable"' },
  dyslexic: { label: 'OpenDyslexic', family: '"OpenDyslexic"' },
} as const;

export const SIZES = [16, 17, 18.5, 20, 22, 24, 27, 30] as const;
const LEADINGS = { close: 1.42, even: 1.6, open: 1.8 } as const;
/** Characters to a line; 45 to 75 is what typographers hold to be comfortable (common practice). */
const MEASURES = { narrow: 48, middle: 62, wide: 74 } as const;

const ReadingSettings = z.object({
  theme: z.enum(['system', 'day', 'night']),
  typeface: z.enum(['literata', 'source', 'atkinson', 'dyslexic']),
  size: z.number().min(SIZES[0]).max(30),
  leading: z.enum(['close', 'even', 'open']),
  measure: z.enum(['narrow', 'middle', 'wide']),
  /** How a new paragraph is told: by room above it, or by its first line's indent. */
  paragraphs: z.enum(['spaced', 'indented']).default('spaced'),
  /** Lines of one length, with words parted at their ends where the browser knows the language. */
  justified: z.boolean().default(false),
  /** Lines of code that are wider than the page go on below instead of scrolling. */
  wrapsCode: z.boolean().default(false),
  /** How one moves through a text. */
  flow: z.enum(['scroll', 'pages']).default('scroll'),
  /** How much of a text that stands elsewhere in the library too is marked. */
  echoes: z.enum(['few', 'more', 'none']).default('few'),
});
type ReadingSettings = z.infer<typeof ReadingSettings>;

const DEFAULTS: ReadingSettings = {
  theme: 'system',
  typeface: 'literata',
  size: 18.5,
  leading: 'even',
  measure: 'middle',
  paragraphs: 'spaced',
  justified: false,
  wrapsCode: false,
  flow: 'scroll',
  echoes: 'few',
};

interface ReadingSettingsState extends ReadingSettings {
  change(changes: Partial<ReadingSettings>): void;
}

/** How the reader wants text to look, on this device. */
export const useReadingSettings = create<ReadingSettingsState>()((set, get) => ({
  ...readSetting('reading', ReadingSettings, DEFAULTS),
  change(changes) {
    set(changes);
    writeSetting('reading', ReadingSettings.parse(get()));
  },
}));

/** The custom properties that the clean text's style sheet reads. */
export function readingStyle(settings: ReadingSettings): Record<string, string> {
  return {
    '--reading-face': `${TYPEFACES[settings.typeface].family}, "Noto Sans JP Variable", "Noto Naskh Arabic Variable", serif`,
    '--ui-face':
      '"Atkinson Hyperlegible Next Variable", "Noto Sans JP Variable", "Noto Naskh Arabic Variable", sans-serif',
    '--reading-size': `${settings.size}px`,
    '--reading-leading': String(LEADINGS[settings.leading]),
    '--reading-align': settings.justified ? 'justify' : 'start',
    '--code-wrap': settings.wrapsCode ? 'pre-wrap' : 'pre',
    '--reading-hyphens': settings.justified ? 'auto' : 'manual',
    ...(settings.paragraphs === 'indented'
      ? { '--paragraph-room': '0', '--paragraph-indent': '1.4em' }
      : { '--paragraph-room': '0.95em', '--paragraph-indent': '0' }),
    // An average character of these faces is about 0.46 of their size wide; `ch` is a digit, and wider.
    '--measure': `${(MEASURES[settings.measure] * 0.46).toFixed(1)}em`,
  };
}
