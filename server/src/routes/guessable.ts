import { isEasilyGuessed } from '../accounts/guessable';
import { HttpProblem } from './problem';

/** @throws HttpProblem for a passphrase that a guesser tries among the first */
export function refuseGuessable(passphrase: string, own: { name: string; mail: string }): void {
  if (isEasilyGuessed(passphrase, [own.name, own.mail]))
    throw new HttpProblem(
      400,
      'guessable',
      'Easily guessed',
      'That passphrase is easily guessed. Take four words or more that have nothing to do with each other.',
    );
}
