import type { PageLine } from './page-lines';

const UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;
/** A sign of an unspaced script says about as much as this many letters. */
const UNSPACED_WEIGHT = 2.6;

export const count = (flag: boolean) => (flag ? 1 : 0);

/** What the words of a line say of it by themselves. */
export interface Own {
  length: number;
  links: number;
  marks: number;
  ends: number;
  capitals: number;
  digits: number;
  wordLength: number;
  unspaced: number;
}

export const NOTHING: Own = {
  length: 0,
  links: 0,
  marks: 0,
  ends: 0,
  capitals: 0,
  digits: 0,
  wordLength: 0,
  unspaced: 0,
};

export function ownFeatures({ text, links }: PageLine): Own {
  const unspaced = UNSPACED.test(text);
  const length = text.length * (unspaced ? UNSPACED_WEIGHT : 1);
  let words = 0;
  let capitals = 0;
  let digits = 0;
  let letters = 0;
  let marks = 0;
  let inside = false;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    const isDigit = code >= 48 && code <= 57;
    const isLetter = (code >= 65 && code <= 90) || (code >= 97 && code <= 122) || code > 191;
    if (isLetter && !(code > 0x2000 && code < 0x3040) && !(code >= 0xff00 && code < 0xff66)) {
      letters++;
      if (!inside) {
        words++;
        if ((code >= 65 && code <= 90) || (code > 191 && isCapital(text.charAt(at)))) capitals++;
      }
      inside = true;
    } else if (isDigit) {
      digits++;
      if (!inside) words++;
      inside = true;
    } else {
      inside = false;
      if (MARKS.has(code)) marks++;
    }
  }
  return {
    length: Math.log1p(length),
    links: Math.min(1, links / text.length),
    marks: (100 * marks) / text.length,
    ends: count(ENDS.has(text.charCodeAt(text.length - 1))),
    capitals: words === 0 ? 0 : capitals / words,
    digits: digits / text.length,
    wordLength: words === 0 ? 0 : letters / words,
    unspaced: count(unspaced),
  };
}

const codes = (signs: string) => new Set(Array.from(signs, (sign) => sign.charCodeAt(0)));
const MARKS = codes('.!?;:,،。、！？；：，؟«»“”');
const ENDS = codes('.!?…。！？؟:：”»");');

function isCapital(sign: string): boolean {
  return sign !== sign.toLowerCase();
}
