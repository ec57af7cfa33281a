import { isEasilyGuessed } from './guessable';

const OWN = ['Ada Brandt', 'ada@brandtland.example'];

// From memory: passphrases of twelve signs or more that stand high in every list of those that became known.
it.each([
  'passwordpassword',
  'password1234',
  'qwertyuiop123',
  '123456789012',
  'aaaaaaaaaaaa',
  'iloveyouiloveyou',
  'abcdefghijklmnop',
  'ada@brandtland.example',
  'brandtbrandt',
])('%s is easily guessed', (passphrase) => {
  expect(isEasilyGuessed(passphrase, OWN)).toBe(true);
});

it.each([
  // Munroe's example of one that is easy to remember and hard to guess (xkcd 936).
  'correct horse battery staple',
  'the tide waits for the ferry',
  'Äpfel im Nebel am Kai',
  'kX9#mv2!pQz7',
  'q7'.repeat(3) + 'harbour light at noon'.repeat(11),
])('%s is not', (passphrase) => {
  expect(isEasilyGuessed(passphrase, OWN)).toBe(false);
});
