import { withEmojiSaid } from '.';

describe('emoji in words', () => {
  // By the Unicode CLDR 48, short names.
  it.each([
    ['en', 'Low tide 🌊 at seven', 'Low tide  water wave  at seven'],
    ['de', 'Danke ❤️', 'Danke  rotes Herz '],
    ['fr', '🌊', ' vague '],
    ['es', '🌊', ' ola de mar '],
    ['it', '🌊', ' onda '],
  ])('%s: %s', (language, written, expected) => {
    expect(withEmojiSaid(written, language)).toBe(expected);
  });

  it('are said by their parts where they are put together, without skin tones', () => {
    expect(withEmojiSaid('👍🏽', 'en')).toBe(' thumbs up ');
    expect(withEmojiSaid('👩‍👩‍👧', 'en')).toBe(' woman girl ');
  });

  it('are countries where they are flags', () => {
    expect(withEmojiSaid('🇮🇹', 'en').trim()).toBe('Italy');
    expect(withEmojiSaid('🇩🇪', 'fr').trim()).toBe('Allemagne');
  });

  it('leaves signs of text, figures and other languages alone', () => {
    for (const text of ['© 2026, Acme™', 'a → b', '12 # 3 *', 'nothing at all'])
      expect(withEmojiSaid(text, 'en')).toBe(text);
    expect(withEmojiSaid('🌊', 'ja')).toBe('🌊');
  });
});
