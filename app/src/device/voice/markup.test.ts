import { offsetsOfMarkup, toMarkup } from './markup';

describe('a text for the synthesizer', () => {
  it('is escaped where it would begin markup', () => {
    expect(toMarkup('Fish & <b>chips</b>')).toBe('Fish &amp; &lt;b&gt;chips&lt;/b&gt;');
  });

  it('is found again from every code point of the markup, also behind characters of two units', () => {
    const text = '𝄞 & tide';
    const markup = Array.from(toMarkup(text));
    const offsets = offsetsOfMarkup(text);
    expect(offsets).toHaveLength(markup.length);
    expect(text.slice(offsets[markup.indexOf('t')])).toBe('tide');
    expect(text[offsets[markup.indexOf(';')] ?? 0]).toBe('&');
  });
});
