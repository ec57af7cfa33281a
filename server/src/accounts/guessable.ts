import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';

/** A guesser who has the hashes and much time tries as many; see below. */
const FEWEST_GUESSES_LOG10 = 6;
/** A longer one is hard to guess by its first part, or not at all; looking at it takes longer with each sign. */
const LOOKED_AT = 100;

/** Made when it is first asked: it takes some time. */
let estimator: ZxcvbnFactory | null = null;

/**
 * Whether a passphrase is among the first that a guesser tries: of the lists of those that are used most, with a few signs more,
 * repeated, along the keyboard, or made of what is known of its owner. By zxcvbn (Wheeler, USENIX Security 2016), whose second
 * of four steps begins at a million guesses.
 *
 * @param own what is known of its owner: name, mail address
 */
export function isEasilyGuessed(passphrase: string, own: readonly string[]): boolean {
  estimator ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  const words = own.flatMap((each) => [each, ...each.split(/[^\p{L}\p{N}]+/u)]).filter((each) => each.length > 2);
  return estimator.check(passphrase.slice(0, LOOKED_AT), words).guessesLog10 < FEWEST_GUESSES_LOG10;
}
