import { AccountEventKind } from '../model';
import { accountEventWords, callerWords } from './account-words';

it('has words of its own for everything that can be done with an account', () => {
  const words = AccountEventKind.options.map((kind) => accountEventWords({ kind, about: 'X' }));
  expect(new Set(words).size).toBe(AccountEventKind.options.length);
  for (const each of words) expect(each).toMatch(/^[A-Z][a-z ]+/);
});

it.each([
  [{ device: 'Firefox on Linux', place: '192.0.2.7' }, 'Firefox on Linux, from 192.0.2.7'],
  [{ device: '', place: '192.0.2.7' }, 'A device that does not say what it is, from 192.0.2.7'],
  [{ device: 'Firefox on Linux', place: '' }, 'Firefox on Linux'],
])('says of %j: %s', (caller, words) => expect(callerWords(caller)).toBe(words));
