/** A file of a voice: what it knows of its language, or how it sounds. */
export interface VoiceFile {
  name: string;
  /** In bytes, as it lies there. */
  bytes: number;
  /** Lower-case hexadecimal. The files are other people's work, and no registry has them: it is said which ones they are. */
  sha256: string;
}

/** A voice that ships. */
export interface ShippedVoice {
  id: ShippedVoiceId;
  /** BCP 47 tag. */
  language: string;
  /** For the reader. */
  name: string;
  /** First what it knows of its language, then how it sounds. */
  files: readonly [VoiceFile, VoiceFile];
  /**
   * What its colour adds to or takes from how loud it is heard, in decibels; see levelled. Measured, see loudness.test.ts.
   */
  levelDb: number;
}

export type ShippedVoiceId = 'en-gb' | 'en-us' | 'de' | 'fr' | 'es' | 'it';

/**
 * Goes up when what is made of a text sounds otherwise: sounds of before are then made again. 1 was another engine.
 */
export const VOICE_VERSION = 2;

/** The voices that ship, the likeliest of a language first. */
export const SHIPPED_VOICES: readonly ShippedVoice[] = [
  {
    id: 'en-gb',
    language: 'en-GB',
    name: 'English, British',
    files: [
      {
        name: 'en-GB_ta.bin',
        bytes: 412248,
        sha256: '57998f6423236dea25cd572a73b13f371e64155840e31b571eba7fca0b521b7e',
      },
      {
        name: 'en-GB_kh0_sg.bin',
        bytes: 584436,
        sha256: '8f9f5d13a920a9f3371517178d42ce89b835f1e587760c2db280beb593c388fa',
      },
    ],
    levelDb: -0.1,
  },
  {
    id: 'en-us',
    language: 'en-US',
    name: 'English, American',
    files: [
      {
        name: 'en-US_ta.bin',
        bytes: 650668,
        sha256: '3a2a4d23de2a44dbbff50f69dcb9486be53b6d0a871d77cdc35f45c3e25e82aa',
      },
      {
        name: 'en-US_lh0_sg.bin',
        bytes: 777396,
        sha256: 'd6946526696d9eb085f7b23b1fbdf7a9986caca658b645e9eb73c6514fd4789d',
      },
    ],
    levelDb: 0,
  },
  {
    id: 'de',
    language: 'de-DE',
    name: 'German',
    files: [
      {
        name: 'de-DE_ta.bin',
        bytes: 440732,
        sha256: 'df292826754713d5efb6c95d60582c17753e95856b4c735c3150db722b2c218a',
      },
      {
        name: 'de-DE_gl0_sg.bin',
        bytes: 634996,
        sha256: '39147b816d08bbbe64b23797804cf691a761ab73a7689ca9e2b6f87ace722654',
      },
    ],
    levelDb: 0.3,
  },
  {
    id: 'fr',
    language: 'fr-FR',
    name: 'French',
    files: [
      {
        name: 'fr-FR_ta.bin',
        bytes: 381936,
        sha256: 'd9da5eb3cd7aac7071ab8ff7fee8d716f58572ee5393c1f0a8db946d6bf32f97',
      },
      {
        name: 'fr-FR_nk0_sg.bin',
        bytes: 833236,
        sha256: '85e2d63cf9f5522ea2a483d25ddd1cb0c6bfeecc39c92884aecfe7d3f179837a',
      },
    ],
    levelDb: 0.1,
  },
  {
    id: 'es',
    language: 'es-ES',
    name: 'Spanish',
    files: [
      {
        name: 'es-ES_ta.bin',
        bytes: 256744,
        sha256: 'b18c60baf249466bf8785d333d8cb4cf1f6b62e5545986f621c66568f1851961',
      },
      {
        name: 'es-ES_zl0_sg.bin',
        bytes: 605280,
        sha256: '82e724d3c788767ec95f0d22b0ab738e677ad397f26ec0bbbf2c07aafdf29000',
      },
    ],
    levelDb: 0.3,
  },
  {
    id: 'it',
    language: 'it-IT',
    name: 'Italian',
    files: [
      {
        name: 'it-IT_ta.bin',
        bytes: 252044,
        sha256: '9b243c3470660293691d0d4e000901d7c5d0fa71976b33986e92e93a860ade33',
      },
      {
        name: 'it-IT_cm0_sg.bin',
        bytes: 628268,
        sha256: 'c48be4dc1f5a3c77a3dc4c8a457949b69bc433d674fac4fac91d49c01770e7e4',
      },
    ],
    levelDb: -0.1,
  },
];

/** A voice by its name. @throws RangeError for one that does not ship */
export function shippedVoice(id: string): ShippedVoice {
  const found = SHIPPED_VOICES.find((voice) => voice.id === id);
  if (!found) throw new RangeError(`no voice “${id}” ships`);
  return found;
}

/** The browser's cache that voices are kept in on a device: they stay when the app is updated. */
export const VOICE_CACHE = 'dorvel-voices';
