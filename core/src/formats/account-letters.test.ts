import { accountLetter, codeLetter, LETTER_KINDS, newDeviceLetter } from '.';

it('a code stands by itself in both forms of its letter, with how long it is good', () => {
  const { text, html, subject } = codeLetter('abcd-efgh-jkmn-pqrs', 30);
  expect(text.split('\n\n')[1]).toBe('abcd-efgh-jkmn-pqrs');
  expect(html).toContain('>abcd-efgh-jkmn-pqrs</p>');
  expect(text).toContain('within 30 minutes');
  expect(subject).not.toContain('abcd');
});

it('what a device says of itself is words in a letter, and never markup', () => {
  const { text, html } = newDeviceLetter('<img src=x onerror=alert(1)> on "X"', 'https://library.example.org/account');
  expect(text).toContain('<img src=x onerror=alert(1)> on "X"');
  expect(html).not.toContain('<img');
  expect(html).toContain('https://library.example.org/account');
});

it.each(LETTER_KINDS)('%s is told with from where it was done, and where to look at it', (kind) => {
  const { subject, text, html } = accountLetter(kind, 'Firefox on <Linux>', 'https://library.example.org/you/account');
  expect(text.split('\n\n')[1]).toBe('Firefox on <Linux>');
  expect(html).toContain('Firefox on &lt;Linux&gt;');
  expect(text).toContain('https://library.example.org/you/account');
  // A letter that could be read in passing names no secret and no person.
  expect(subject).toMatch(/^[A-Z][a-z ]+[A-Z]?[a-z ]*$/);
});
