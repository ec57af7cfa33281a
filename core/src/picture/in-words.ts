import type { KindReason, PictureKind, PictureSeen } from '../model';

export const PICTURE_KIND_WORDS: Readonly<Record<PictureKind, string>> = {
  photograph: 'Photograph',
  drawing: 'Drawing',
  'line-drawing': 'Line drawing',
  diagram: 'Diagram or chart',
  screenshot: 'Screenshot',
  'page-of-text': 'Page of text',
};

const percent = (part: number) => `${Math.round(100 * part)}\u00a0%`;

/** What was measured, as a half sentence. */
export function kindReasonWords({ of, amount }: KindReason): string {
  switch (of) {
    case 'soft':
      return `${percent(amount)} of it is soft shades`;
    case 'paper':
      return `its ground takes ${percent(amount)}`;
    case 'long':
      return `its longest straight edges take ${percent(amount)} of its sides`;
    case 'thin':
      return `${percent(amount)} of what is dark in it is thin lines`;
    case 'middle':
      return `${percent(amount)} of it is neither light nor dark`;
    case 'straight':
      return `${percent(amount)} of its edges run straight`;
    case 'text':
      return `words cover ${percent(amount)} of it`;
    case 'strong':
      return `${percent(amount)} of it is strongly coloured`;
    case 'grey':
      return `${percent(amount)} of it is grey`;
  }
}

/** Its kind in a word or two, black and white where it is. */
export function kindInWords(kind: PictureKind, { isGrey }: Pick<PictureSeen, 'isGrey'>): string {
  return isGrey && kind !== 'page-of-text' ? `${PICTURE_KIND_WORDS[kind]}, black and white` : PICTURE_KIND_WORDS[kind];
}
