import table from './names.json';

/*
 * Apart from all else, since only what makes sound of texts needs it: the table is large.
 */

/** An emoji with its skin tones and joints; a flag; a key. */
const EMOJI =
  /(?:\p{Regional_Indicator}{2}|[\d#*]\uFE0F?\u20E3|\p{Extended_Pictographic}(?:\uFE0F|\p{Emoji_Modifier}|\u200D\p{Extended_Pictographic})*)/gu;
const NOT_SAID = /[\uFE0F\u200D]|\p{Emoji_Modifier}/gu;
/** Signs that are emoji by Unicode’s table, and stand in running text as what they always were. */
const SIGNS = /^[©®™‼⁉ℹ↔-↪]$/u;

const placeOf = new Map(table.emoji.map((emoji, at) => [emoji, at]));
const names: Readonly<Record<string, readonly string[]>> = table.names;

/**
 * A text with its emoji in words: by their short names in the Unicode CLDR, flags by their country's. What came to be put together
 * of several is said by its parts, each once.
 *
 * @param language ISO 639-1 code; in one that has no names, emoji are left as they are
 */
export function withEmojiSaid(text: string, language: string): string {
  const own = names[language];
  if (!own) return text;
  return text.replace(EMOJI, (emoji) => {
    if (SIGNS.test(emoji)) return emoji;
    const said = /^\p{Regional_Indicator}{2}$/u.test(emoji)
      ? countryOf(emoji, language)
      : [...new Set(Array.from(emoji.replace(NOT_SAID, '')))]
          .map((part) => own[placeOf.get(part) ?? -1] ?? '')
          .filter(Boolean)
          .join(' ');
    return said === '' ? emoji : ` ${said} `;
  });
}

/** Regional indicator symbols stand for the letters of a country's code (Unicode, UTS 51). */
function countryOf(flag: string, language: string): string {
  const code = Array.from(flag, (letter) => String.fromCharCode((letter.codePointAt(0) ?? 0) - 0x1f1e6 + 65)).join('');
  return new Intl.DisplayNames(language, { type: 'region', fallback: 'none' }).of(code) ?? '';
}
